namespace Tensarch.Core.Catalogue;

/// <summary>Shipped content that does not hold together: which file, where in it, and why.</summary>
public sealed class ContentException(string file, string path, string reason) : Exception($"{file}: {path}: {reason}")
{
    public string File { get; } = file;

    public string Path { get; } = path;

    public string Reason { get; } = reason;
}
