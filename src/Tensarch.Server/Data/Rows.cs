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

/// <summary>A row on which verdicts rest: with every new one the student's lines on the readiness board are derived again.</summary>
public interface IJudged
{
    Guid StudentId { get; }
}
