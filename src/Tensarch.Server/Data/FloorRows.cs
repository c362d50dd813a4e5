using Tensarch.Core;
using Tensarch.Core.Students;

namespace Tensarch.Server.Data;

/// <summary>What was said on the floor, as it was said: a second device replays it.</summary>
public sealed class EventRow : IFact, ITold
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public Guid SessionId { get; set; }

    /// <summary>Counts up on the device that said it.</summary>
    public int Seq { get; set; }

    /// <summary>The device that said it: two that run one session without hearing of each other are told apart by it.</summary>
    public Guid? Device { get; set; }

    /// <summary>It, or one before it on its device, had not heard what another device said.</summary>
    public bool Doubled { get; set; }

    public DateTimeOffset At { get; set; }

    /// <inheritdoc />
    public DateTimeOffset RecordedAt { get; set; }

    /// <summary>The event, as JSON: the runner's own, which the server does not read.</summary>
    public required string SaidJson { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>What was seen at a day gate: each check with its answer.</summary>
public sealed class GateAnswerRow : IFact, ITold
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public Guid SessionId { get; set; }

    public required string Gate { get; set; }

    public Side? Side { get; set; }

    public required string AnswersJson { get; set; }

    public DateTimeOffset At { get; set; }

    /// <inheritdoc />
    public DateTimeOffset RecordedAt { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>What a correction is about.</summary>
public enum Corrected
{
    Set,
    Signal,
    Form,
    Exit,
    Decision,
    Session,
    Reading,
}

/// <summary>
/// A fact about a fact: what is said of it now, or that it counts for nothing. Of two about one, what the newer one says stands; the order in
/// which they arrive does not matter.
/// </summary>
public sealed class CorrectionRow : IFact, IJudged
{
    /// <summary>The reasons of what the floor says of its own sets; every other one was given by a coach afterwards.</summary>
    public const string Confirmed = "confirmed";
    public const string Quality = "quality";

    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public Corrected What { get; set; }

    /// <summary>The fact that is corrected.</summary>
    public Guid Of { get; set; }

    /// <summary>What is said instead, field by field, as JSON; none when it counts for nothing.</summary>
    public string? InsteadJson { get; set; }

    public required string Reason { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";

    /// <summary>One that cannot be read changes nothing.</summary>
    public Correction ToCore() => new(Id, Of, At, InsteadJson is null ? null : StoredJson.TryRead<Instead>(InsteadJson) ?? new());
}
