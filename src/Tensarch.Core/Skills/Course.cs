using Tensarch.Core.Catalogue;
using Tensarch.Core.Students;

namespace Tensarch.Core.Skills;

/// <summary>One skill of a student, on the version of the ladder that they follow.</summary>
/// <param name="Evidence">The facts on which its gates are judged.</param>
public sealed record Course(Enrolment Enrolment, Evidence Evidence)
{
    public Ladder Ladder => Enrolment.Ladder;

    public string Skill => Ladder.Skill;

    public int StageOf(Side? side) => Evidence.StageOf(side);

    /// <summary>Left and right, or the one bilateral verdict.</summary>
    public IReadOnlyList<GateVerdict> Judge(Gate gate) => [.. Ladder.Courses.Select(side => gate.Judge(Ladder, side, Evidence))];

    /// <summary>Left against right in the ladder's side measure, warm, under the student's standard; none on a bilateral ladder.</summary>
    public SideComparison? Compare(CatalogueContent content) =>
        Ladder.SideMeasureAt(Ladder.Courses.Min(StageOf)) is { } read
            ? SideComparison.Of(content.Measure(read.Measure), read.Level, Evidence)
            : null;
}
