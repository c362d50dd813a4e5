using System.Text.RegularExpressions;

namespace Tensarch.Core.Tests.Catalogue;

/// <summary>Links are data: no key of a drill, a measure or a skill stands in the code, where a change of content would pass it by.</summary>
public partial class LinkTests
{
    private static readonly string[] Left = ["obj", "bin", "node_modules", "Content", "Migrations", "Demo"];

    [Fact]
    public void No_key_of_the_catalogue_is_written_in_code()
    {
        var keys = Shipped
            .Content.DrillList.Select(d => d.Key)
            .Concat(Shipped.Content.Measures.Select(m => m.Key))
            .Concat(Shipped.Content.Ladders.Select(l => l.Key))
            .ToHashSet();
        var root = Root();
        var files = new[] { "src", "web/src" }
            .SelectMany(folder => Directory.EnumerateFiles(Path.Combine(root, folder), "*", SearchOption.AllDirectories))
            .Where(f => Path.GetExtension(f) is ".cs" or ".ts" or ".svelte")
            .Where(f => !f.EndsWith(".test.ts", StringComparison.Ordinal) && !f.EndsWith("schema.d.ts", StringComparison.Ordinal))
            .Where(f => !Path.GetRelativePath(root, f).Split(Path.DirectorySeparatorChar).Any(Left.Contains))
            .ToList();
        Assert.True(files.Count > 300, $"{files.Count} files were looked at.");
        var found =
            from file in files
            from literal in Literal().Matches(File.ReadAllText(file))
            where keys.Contains(literal.Groups[1].Value)
            select $"{Path.GetRelativePath(root, file)}: {literal.Value}";
        Assert.Empty(found);
    }

    [GeneratedRegex("""["']([a-z0-9]+(?:-[a-z0-9]+)*)["']""")]
    private static partial Regex Literal();

    private static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "Tensarch.slnx")))
            folder = folder.Parent ?? throw new DirectoryNotFoundException("The repository's root.");
        return folder.FullName;
    }
}
