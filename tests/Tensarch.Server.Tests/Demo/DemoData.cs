namespace Tensarch.Server.Tests.Demo;

/// <summary>Copies of the demo studio of today, which <c>./dev test</c> makes once; without one, an empty folder in which it is made.</summary>
public static class DemoData
{
    private static readonly string Made = Path.GetFullPath(Path.Combine(AppContext.BaseDirectory, "../../../../../artifacts/demo/today"));

    public static string Copy()
    {
        var folder = Folders.New();
        if (Directory.Exists(Made))
            foreach (var file in Directory.GetFiles(Made, "*", SearchOption.AllDirectories))
            {
                var place = Path.Combine(folder, Path.GetRelativePath(Made, file));
                Directory.CreateDirectory(Path.GetDirectoryName(place)!);
                File.Copy(file, place);
            }
        return folder;
    }
}
