namespace Tensarch.Server.Tests;

/// <summary>Folders for data that no power cut is tested on: in memory where the machine has a place for that, so that no test waits for a disk.</summary>
internal static class Folders
{
    private const string InMemory = "/dev/shm";

    public static string New() =>
        Directory.Exists(InMemory)
            ? Directory.CreateDirectory(Path.Combine(InMemory, $"tensarch-{Guid.NewGuid():N}")).FullName
            : Directory.CreateTempSubdirectory("tensarch-").FullName;
}
