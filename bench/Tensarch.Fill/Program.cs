using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Server.Data;

// Fills the first studio of a database with readings of its students, spread evenly over three years up to now, as a studio would have
// them: every measure, both sides, three trials. Usage: Tensarch.Fill DATABASE READINGS
// Or makes a thousand students with years of training: Tensarch.Fill DATABASE STUDENTS YEARS [VERSIONS]
if (args.Length >= 3)
{
    Tensarch.Fill.Seasons.Fill(
        args[0],
        int.Parse(args[1], System.Globalization.CultureInfo.InvariantCulture),
        int.Parse(args[2], System.Globalization.CultureInfo.InvariantCulture),
        args.Length > 3 ? int.Parse(args[3], System.Globalization.CultureInfo.InvariantCulture) : 1
    );
    return;
}
var (path, wanted) = (args[0], int.Parse(args[1], System.Globalization.CultureInfo.InvariantCulture));
const int Chunk = 5000;
var random = new Random(20260224);
var scope = new StudioScope();
var options = new DbContextOptionsBuilder<TensarchDb>().UseSqlite($"Data Source={path}").Options;
await using var start = new TensarchDb(options, scope, TimeProvider.System);
var studio = await start.Studios.SingleAsync();
var owner = await start.Users.FirstAsync();
scope.Enter(studio.Id, owner.Id, studio.TimeZone);
var students = await start.Students.Select(s => s.Id).ToListAsync();
var measures = ContentLoader.Load().Measures.Where(m => m.Kind == MeasureKind.Range).ToList();
var have = await start.Readings.CountAsync();
var now = DateTimeOffset.UtcNow;

for (var done = have; done < wanted; done += Chunk)
{
    await using var db = new TensarchDb(options, scope, TimeProvider.System);
    db.ChangeTracker.AutoDetectChangesEnabled = false;
    db.Readings.AddRange(Enumerable.Range(done, Math.Min(Chunk, wanted - done)).Select(Reading));
    await db.SaveChangesAsync();
}
Console.WriteLine($"{await start.Readings.CountAsync()} readings of {students.Count} students");

ReadingRow Reading(int i)
{
    var measure = measures[i % measures.Count];
    var middle = measure.Min + (measure.Max - measure.Min) * 0.4;
    var trials = Enumerable.Range(0, 3).Select(_ => Math.Round(middle + random.NextDouble() * measure.Sem, 1)).ToList();
    return new()
    {
        Id = Guid.NewGuid(),
        StudentId = students[i / measures.Count % students.Count],
        Measure = measure.Key,
        Side = measure.PerSide ? (Side)(i / measures.Count / students.Count % 2) : null,
        Mode = measure.Mode,
        Level = measure.Levels.FirstOrDefault()?.Key,
        Warmth = Warmth.Warm,
        Standard = measure.Standards.FirstOrDefault(),
        Instrument = measure.Instruments[0],
        Trials = trials,
        TrialsAt = [],
        Compensations = [],
        Sem = measure.Sem,
        Tau = measure.Tau,
        Value = trials.Average(),
        StandardError = ReadingError.StandardError(measure.Sem, measure.Tau, 3),
        TakenAt = now.AddMinutes(-random.NextDouble() * 3 * 365 * 24 * 60),
        TakenBy = owner.Id,
        BodyHash = "filled",
    };
}
