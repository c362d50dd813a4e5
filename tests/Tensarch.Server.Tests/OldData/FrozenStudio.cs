using System.IO.Compression;
using System.Net;
using System.Text.Json;
using Tensarch.Server.Accounts;

namespace Tensarch.Server.Tests.OldData;

/// <summary>A studio as an earlier program left it (<c>tests/fixtures</c>), opened by this one at the moment at which it was frozen.</summary>
internal sealed record FrozenStudio(string Day, DateTimeOffset At)
{
    public string File(string name) => Path.Combine(AppContext.BaseDirectory, "fixtures", Day, name);

    public StudioApp Open(string database = "studio")
    {
        var folder = Folders.New();
        using (var file = System.IO.File.Create(Path.Combine(folder, "tensarch.db")))
        using (var packed = Unpacked($"{database}.db.gz"))
            packed.CopyTo(file);
        foreach (var picture in Directory.GetFiles(File("pictures"), "*.webp", SearchOption.AllDirectories))
        {
            var place = Path.Combine(folder, Path.GetRelativePath(File(""), picture));
            Directory.CreateDirectory(Path.GetDirectoryName(place)!);
            System.IO.File.Copy(picture, place);
        }
        return new StudioApp { DataFolder = folder, Time = new(At) };
    }

    public async Task<JsonElement> Read(string name)
    {
        await using Stream file = name.EndsWith(".gz", StringComparison.Ordinal) ? Unpacked(name) : System.IO.File.OpenRead(File(name));
        return (await JsonDocument.ParseAsync(file)).RootElement;
    }

    private GZipStream Unpacked(string name) => new(System.IO.File.OpenRead(File(name)), CompressionMode.Decompress);

    public static async Task<StudioClient> SignIn(StudioApp app, DemoAccount who)
    {
        var coach = new StudioClient(app.Client(), Guid.Empty, Guid.Empty, who.Email);
        Assert.Equal(HttpStatusCode.NoContent, (await coach.SignIn(who.Password)).StatusCode);
        return coach;
    }
}
