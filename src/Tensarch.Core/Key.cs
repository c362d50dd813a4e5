namespace Tensarch.Core;

/// <summary>The keys by which content is named, in files, bodies and paths alike.</summary>
public static class Key
{
    public const string Pattern = "^[a-z0-9-]{1,60}$";
}
