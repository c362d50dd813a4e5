using System.Collections.Concurrent;
using Tensarch.Core.Catalogue;

namespace Tensarch.Core.Planning;

/// <summary>
/// The skills of one student on one day as sessions are made of them, each part once: a plan tries a hundred sessions of a day before it has
/// one, of the same few courses at the same few doses. Safe for several at once.
/// </summary>
/// <param name="who">On the day; its minutes and which of its courses are trained may differ from session to session.</param>
internal sealed class SkillParts(CatalogueContent catalogue, Trainee who)
{
    public Trainee Who => who;

    private readonly ConcurrentDictionary<CourseState, ConcurrentDictionary<(int? MostStep, bool Light), SkillPart>> made = new(
        ReferenceEqualityComparer.Instance
    );

    private readonly ConcurrentDictionary<IReadOnlyList<PlannedSide>, PlannedFacts> facts = new(ReferenceEqualityComparer.Instance);

    private SkillParts? freed;

    /// <summary>The same student with nothing light only.</summary>
    public SkillParts Freed => freed ??= new(catalogue, Of(who));

    private static Trainee Of(Trainee who) => who with { Bars = who.Bars.Freeing(who.Bars.Few) };

    public SkillPart Of(CourseState course, DayOrder order)
    {
        var (dosed, light) = (order.Dosed(who, course), order.Light.Contains(course.Skill));
        return made.GetOrAdd(course, _ => []).GetOrAdd((dosed.MostStep, light), _ => new(catalogue, who, dosed, light));
    }

    public PlannedFacts FactsOf(PlannedDrill planned) =>
        facts.GetOrAdd(planned.Sides, _ => new(catalogue, catalogue.Drill(planned.Drill), planned, who.BreathSeconds));
}
