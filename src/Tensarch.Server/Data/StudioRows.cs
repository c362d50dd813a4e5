using Microsoft.AspNetCore.Identity;

namespace Tensarch.Server.Data;

public sealed class StudioRow
{
    public Guid Id { get; set; }

    public required string Name { get; set; }

    /// <summary>IANA name; training days are counted in it.</summary>
    public required string TimeZone { get; set; }

    /// <summary>The kinds of block in the house as JSON; none for the standard block alone.</summary>
    public string? BlocksJson { get; set; }

    /// <summary>Counts up with every change of the blocks.</summary>
    public int BlocksVersion { get; set; }
}

public enum Role
{
    /// <summary>Reads only.</summary>
    Assistant,
    Coach,
    Owner,
}

public sealed class CoachUser : IdentityUser<Guid>
{
    public Guid StudioId { get; set; }

    public required string DisplayName { get; set; }

    public Role Role { get; set; }
}
