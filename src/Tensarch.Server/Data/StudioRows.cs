using Microsoft.AspNetCore.Identity;

namespace Tensarch.Server.Data;

public sealed class StudioRow
{
    public Guid Id { get; set; }

    public required string Name { get; set; }

    /// <summary>IANA name; training days are counted in it.</summary>
    public required string TimeZone { get; set; }

    /// <summary>Counts up with every change of name, time zone, opening hours and stand-ins.</summary>
    public int Version { get; set; }

    /// <summary>The core's opening times, as JSON; none when the studio has not said.</summary>
    public string? OpeningJson { get; set; }

    /// <summary>What stands in for props in a household, as JSON; none for what is shipped.</summary>
    public string? StandInsJson { get; set; }

    /// <summary>The kinds of block in the house as JSON; none for the standard block alone.</summary>
    public string? BlocksJson { get; set; }

    /// <summary>Counts up with every change of the blocks.</summary>
    public int BlocksVersion { get; set; }
}

/// <summary>One sign-in that stands: taken away at sign-out, and with it every cookie that names it.</summary>
public sealed class SignInRow
{
    /// <summary>SHA-256 of the key in the cookie: what lies in a backup signs nobody in.</summary>
    public required string KeyHash { get; set; }

    public Guid UserId { get; set; }

    /// <summary>The authentication ticket.</summary>
    public required byte[] Ticket { get; set; }

    public DateTimeOffset ExpiresAt { get; set; }
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

    /// <summary>They work here no longer and cannot sign in; what they did stays theirs.</summary>
    public DateTimeOffset? LeftAt { get; set; }

    /// <summary>Seals what they say on a device until it is here: 32 bytes, made when first asked for, told to nobody else.</summary>
    public byte[]? DeviceKey { get; set; }
}

/// <summary>What somebody said on a device and that is not here, as the device counts it.</summary>
public sealed class UnsentRow : IStudioRow
{
    public Guid StudioId { get; set; }

    public Guid Device { get; set; }

    public Guid UserId { get; set; }

    /// <summary>So many wait there for their author to sign in.</summary>
    public int Waiting { get; set; }

    /// <summary>When the oldest of those was said.</summary>
    public DateTimeOffset? Oldest { get; set; }

    /// <summary>So many were dropped there in all, having waited for too long.</summary>
    public int Dropped { get; set; }

    /// <summary>Of those the owner knows.</summary>
    public int Noted { get; set; }

    public DateTimeOffset At { get; set; }
}
