using System.Reflection;
using Microsoft.Extensions.FileProviders;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Programmes;
using Tensarch.Server.Accounts;
using Tensarch.Server.Calendar;
using Tensarch.Server.Catalogue;
using Tensarch.Server.Data;
using Tensarch.Server.Demo;
using Tensarch.Server.Exchange;
using Tensarch.Server.Hosting;
using Tensarch.Server.Hosting.Door;
using Tensarch.Server.Measuring;
using Tensarch.Server.Planning;
using Tensarch.Server.Programmes;
using Tensarch.Server.Sessions;
using Tensarch.Server.Skills;
using Tensarch.Server.Students;
using Tensarch.Solver;

var builder = WebApplication.CreateBuilder(args);
var describing = Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";
var data = Directory.CreateDirectory(builder.Configuration["Data"] ?? Path.Combine(builder.Environment.ContentRootPath, "data")).FullName;
var content = Task.Run(ContentLoader.Load);

// Each query and each request would be a line; settings may ask for them. What fails is logged by whoever answers it.
builder
    .Logging.AddFilter("Microsoft.EntityFrameworkCore", LogLevel.Warning)
    .AddFilter("Microsoft.EntityFrameworkCore.Database.Command", LogLevel.Critical)
    .AddFilter("Microsoft.EntityFrameworkCore.Update", LogLevel.Critical)
    .AddFilter("Microsoft.AspNetCore", LogLevel.Warning);

builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.AddServerHeader = false;
    kestrel.Limits.MaxRequestBodySize = 1024 * 1024;
});
builder.Services.AddDatabase(Path.Combine(data, "tensarch.db"));
builder.Services.AddAccounts(builder.Configuration, data);
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton(new StudioContent(content));
builder.Services.AddScoped(services =>
    services.GetRequiredService<StudioContent>().Of(services.GetRequiredService<StudioScope>(), services.GetRequiredService<TensarchDb>())
);
builder.Services.AddSingleton(new ClipFiles(Path.Combine(data, "clips")));
builder.Services.AddScoped<Standings>();
builder.Services.AddScoped<StudioLadders>();
builder.Services.AddScoped<BoardDesk>();
if (builder.Configuration.GetValue("KeepBoard", true))
    builder.Services.AddHostedService<BoardKeeper>();
builder.Services.AddScoped<StudioDesk>();
builder.Services.AddScoped<StudentDesk>();
builder.Services.AddScoped<StudioMeasures>();
builder.Services.AddScoped<OwnNoises>();
builder.Services.AddScoped<ReadingDesk>();
builder.Services.AddScoped<ReadingPreviews>();
builder.Services.AddScoped<SittingDesk>();
builder.Services.AddScoped<SittingViews>();
builder.Services.AddScoped<PictureDesk>();
builder.Services.AddSingleton(new PictureFiles(Path.Combine(data, "pictures")));
builder.Services.AddSingleton(services => new SimulatedInclinometer(
    services.GetRequiredService<TimeProvider>(),
    builder.Configuration.GetValue("SimulatedInclinometer", builder.Configuration.GetValue<bool>("Demo"))
));
builder.Services.AddSingleton<IInclinometer>(services => services.GetRequiredService<SimulatedInclinometer>());
builder.Services.AddScoped<ReadingImport>();
builder.Services.AddScoped<SkillDesk>();
builder.Services.AddScoped<EvidenceDesk>();
builder.Services.AddScoped<PlanDesk>();
builder.Services.AddSingleton<IWeekSolver>(_ => new SolverProcess());
builder.Services.AddScoped<ProgrammeDesk>();
builder.Services.AddScoped<PlanViewer>();
builder.Services.AddSingleton<RosterRuns>();
if (!describing && builder.Configuration.GetValue("PlanRosters", true))
    builder.Services.AddHostedService(services => services.GetRequiredService<RosterRuns>());
builder.Services.AddScoped<CalendarDesk>();
builder.Services.AddScoped<EditDesk>();
builder.Services.AddScoped<WeekJudge>();
builder.Services.AddSingleton<PlanningTurns>();
builder.Services.AddResponseCompression(o => o.EnableForHttps = true);
builder.Services.AddScoped<SessionChanges>();
builder.Services.AddScoped<LogDesk>();
builder.Services.AddScoped<PackDesk>();
builder.Services.AddScoped<NoteDesk>();
builder.Services.AddScoped<FloorDesk>();
builder.Services.AddScoped<CorrectionDesk>();
builder.Services.ConfigureHttpJsonOptions(json =>
{
    CoreJson.Apply(json.SerializerOptions);
    json.SerializerOptions.RespectNullableAnnotations = true;
    json.SerializerOptions.RespectRequiredConstructorParameters = true;
});
builder.Services.AddExceptionHandler<BadRequests>();
builder.Services.AddProblemDetails();
builder.Services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
builder.Services.AddOpenApi("v1", ApiDescription.Configure);

var app = builder.Build();
var web = Path.GetFullPath(
    app.Configuration["Web"] ?? Path.Combine(app.Environment.ContentRootPath, "..", "..", "web", "build"),
    app.Environment.ContentRootPath
);
IFileProvider webRoot = Directory.Exists(web) ? new PhysicalFileProvider(web) : new NullFileProvider();

app.UseSecurityHeaders(webRoot);
app.UseExceptionHandler();
app.UseStatusCodePages(context =>
    Problems
        .Of(context.HttpContext.Response.StatusCode, Problems.CodeOf(context.HttpContext.Response.StatusCode))
        .ExecuteAsync(context.HttpContext)
);
app.UseSameOrigin();
app.UseWebFiles(webRoot);

// A pack says the same cues many times over. It has nothing in it that a stranger can put there, so that its length tells nobody anything.
app.UseWhen(
    context => context.Request.Path.Value?.EndsWith("/pack", StringComparison.Ordinal) == true,
    packs => packs.UseResponseCompression()
);
app.UseRouting();
app.UseRateLimiter();
app.UseAuthentication();
app.UseStudioScope();
app.UseAuthorization();
app.UseRouteIds();
app.UseWebPages(webRoot);

var api = app.MapGroup("/api/v1");
api.GuardWrites();
api.CheckAtTheDoor();
api.MapAccounts();
api.MapMembers();
api.MapUnsent();
api.MapStudio();
api.MapCatalogue();
api.MapDrills();
api.MapStudents();
api.MapNotes();
api.MapPulse();
api.MapMeasuring();
api.MapCompute();
api.MapSkills();
api.MapSessions();
api.MapProgrammes();
api.MapToday();
api.MapRosterRuns();
api.MapCalendar();
api.MapPractice();
api.MapExchange();
app.MapOpenApi("/api/openapi/{documentName}.json").RequireAuthorization();
app.MapFeeds();
app.MapHealth();

if (!describing)
{
    await Database.Migrate(app.Services);
    RouteIds.Check(app.Services.GetRequiredService<EndpointDataSource>().Endpoints);
    _ = app.Services.GetRequiredService<StudioContent>().Shipped;
    if (app.Configuration.GetValue<bool>("Demo"))
        await DemoStudio.EnsureMade(app.Services, app.Logger);
    if (app.Configuration.GetValue<bool>("OnlyMakeDemo"))
    {
        Database.Close();
        return;
    }
    await ReadingPains.TellOld(app.Services);
    await KeptWork.Rebuild(app.Services);
    await app.Services.GetRequiredService<SetupCode>().Announce(app.Services, app.Logger);
    await app.Services.GetRequiredService<PictureFiles>().Recover(app.Services);
}
await app.RunAsync();
