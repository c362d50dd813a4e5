namespace Tensarch.Server.Data;

/// <summary>A row that belongs to a studio. The context filters every query by it and stamps every new row with it.</summary>
public interface IStudioRow
{
    Guid StudioId { get; set; }
}

/// <summary>A fact: appended once under a client-made id, never changed. The hash tells a retry from a clash of ids.</summary>
public interface IFact : IStudioRow
{
    Guid Id { get; }

    string BodyHash { get; set; }
}

/// <summary>A fact that may be told long after it happened: when this server heard of it stands beside the instant that it names.</summary>
public interface ITold
{
    /// <summary>By the server's clock, written when the row is.</summary>
    DateTimeOffset RecordedAt { get; set; }
}

/// <summary>
/// A line that was derived from the facts about one student, and kept. It is derived again when there is a new fact, and when a day begins or
/// a test goes stale.
/// </summary>
public interface IKeptLine : IStudioRow
{
    Guid StudentId { get; }

    /// <summary>The line as it is shown, as JSON; empty before it is derived for the first time.</summary>
    string LineJson { get; set; }

    /// <summary>From then on it no longer holds.</summary>
    DateTimeOffset DueAt { get; set; }

    /// <summary>Counts up with every new fact: what was derived from older ones is not written over it.</summary>
    int Stamp { get; set; }
}

/// <summary>A row of one student: with every new or changed one their pulse counts up, by which another coach's screen hears of it.</summary>
public interface IOfStudent
{
    Guid StudentId { get; }
}

/// <summary>A row on which verdicts rest: with every new one the student's lines on the board and in the roster are derived again.</summary>
public interface IJudged : IOfStudent;
