using System.ComponentModel.DataAnnotations;
using Tensarch.Core.Planning;

namespace Tensarch.Server.Accounts;

/// <param name="Version">Sent back with a change.</param>
/// <param name="StandIns">For every prop that has one: the studio's words, or the shipped ones.</param>
public sealed record StudioView(
    int Version,
    string Name,
    string TimeZone,
    IReadOnlyList<OpenTime> Opening,
    IReadOnlyList<StandIn> StandIns
);

/// <param name="Version">As it was read; another one stands by now: 412.</param>
/// <param name="StandIns">Of the props whose words are the studio's own.</param>
public sealed record StudioRequest(
    int Version,
    [Required, StringLength(120)] string Name,
    [StringLength(60)] string TimeZone,
    [MaxLength(OpeningHours.MostTimes)] IReadOnlyList<OpenTime> Opening,
    [MaxLength(40)] IReadOnlyList<StandIn> StandIns
);

/// <summary>What another time zone would change: training days are counted in it.</summary>
/// <param name="Today">There, now.</param>
/// <param name="LocalTime">There, now.</param>
/// <param name="Readings">Of the last 120 days that would count for another day.</param>
/// <param name="Sets">Of the last 120 days that would count for another day.</param>
/// <param name="Sessions">Of the last 120 days that would have been trained on another day.</param>
/// <param name="Students">Of whom anything of that is.</param>
public sealed record TimeZoneChange(DateOnly Today, TimeOnly LocalTime, int Readings, int Sets, int Sessions, int Students);

/// <summary>What a person changes of themselves; what is not given stays.</summary>
/// <param name="Name">Shown wherever it says who did something, earlier facts included.</param>
/// <param name="Email">What they sign in as; every other sign-in of theirs ends.</param>
/// <param name="Current">Their password: asked for another address, as a sign-in may be in a stranger's hands.</param>
public sealed record OwnRequest(
    [StringLength(120)] string? Name = null,
    [StringLength(200)] string? Email = null,
    [StringLength(200)] string? Current = null
);

public sealed record PasswordRequest([StringLength(200)] string Current, [StringLength(200)] string Password);

/// <summary>What the owner changes of a member; what is not given stays. One's own address and password are changed by <see cref="OwnRequest"/> alone.</summary>
/// <param name="Password">A new first password; every sign-in of theirs ends.</param>
/// <param name="Left">They work here no longer, or again.</param>
public sealed record MemberChange(
    [StringLength(120)] string? Name = null,
    [StringLength(200)] string? Email = null,
    Data.Role? Role = null,
    [StringLength(200)] string? Password = null,
    bool? Left = null
);
