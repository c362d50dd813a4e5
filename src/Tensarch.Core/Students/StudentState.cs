using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;

namespace Tensarch.Core.Students;

/// <summary>
/// What the facts about a student come to: the one place in which answers, screens, age and consent, clearances, reviews, pain, falls, breaks
/// and stages become bars by day, easing, the way back and where they stand. Pure: the same facts in any order give the same state.
/// </summary>
public sealed class StudentState
{
    private StudentState(StudentFacts facts, Moment now, CatalogueContent content)
    {
        (Facts, Now, this.content) = (facts, now, content);
        Bars = new(facts, content.Questions, content.StopRules, now.DayOf);
        Today = Bars.On(now.Day);
        Past = new(facts, content, now.DayOf);
        var sessions = facts
            .Sessions.OrderBy(s => s.At)
            .Select(s => s with { Worked = [.. s.Worked.Select(w => WithBar(WithPain(w, s), s))] })
            .ToList();
        proven = facts with { Sessions = [.. sessions.Select(s => s with { Worked = [.. s.Worked.Where(w => !w.UnderBar)] })] };
        Sessions = sessions;
        History = TrainingHistory.Of(sessions, content);
        LastSessionOn = sessions.Count == 0 ? null : sessions[^1].Day;
        Evidence = new(
            null,
            facts.Person.Body,
            facts.Readings,
            [
                .. facts.Sets.Where(s => !UnderBar(s.Drill, s.Variant, s.Seconds, s.At)).Select(s => s with { Skill = SkillOf(s) }),
                .. sessions.SelectMany(WorkOf),
            ],
            [.. sessions.Where(s => s.Proves).Select(s => new SessionDay(s.Id, s.At, s.Day))],
            [.. facts.Signals.OrderBy(s => s.At)],
            [],
            facts.Exits,
            [],
            Today,
            now.At,
            now.Day
        );
        string? SkillOf(LoggedSet set) =>
            sessions.FirstOrDefault(s => s.Id == set.Session)?.Worked.FirstOrDefault(w => w.Drill == set.Drill)?.Skill;
        Courses =
        [
            .. facts
                .Enrolments.OrderBy(e => content.Skills.Index().FirstOrDefault(l => l.Item.Key == e.Ladder.Skill).Index)
                .Select(e => new Course(e, For(e.Ladder))),
        ];
        Until = Turns().Where(d => d > now.Day).Select(now.StartOf).DefaultIfEmpty(DateTimeOffset.MaxValue).Min();
    }

    private readonly CatalogueContent content;

    /// <summary>The facts without what was done under a bar.</summary>
    private readonly StudentFacts proven;

    /// <summary>Pain above this, of 10, and what was done does not lead to a harder variant.</summary>
    private const int EasyPain = 2;

    /// <summary>What hurt was not done in full, whatever the clock says.</summary>
    private Work WithPain(Work work, TrainedSession session) =>
        work.Full
        && Facts.Signals.Any(s =>
            Now.DayOf(s.At) == session.Day
            && (s.Pain > EasyPain || (s.Pain is null && s.IsPainEvent))
            && (
                s.Drill == work.Drill
                || s.Region is { } region && content.FindDrill(work.Drill)?.Loads.GetValueOrDefault(region) > LoadLevel.None
            )
        )
            ? work with
            {
                Full = false,
            }
            : work;

    private Work WithBar(Work work, TrainedSession session)
    {
        var (first, last) = work.When ?? (session.At, session.At);
        return UnderBar(work, first) || UnderBar(work, last) ? work with { Full = false, UnderBar = true } : work;
    }

    /// <summary>What was done was barred then, as long and as hard as it was: it loads the body like anything else, and proves nothing.</summary>
    private bool UnderBar(Work work, DateTimeOffset at) =>
        content.FindDrill(work.Drill) is { } known
        && known.Variants.Any(v => v.Key == work.Variant)
        && !Past.At(at).Allow(known.LoadsOf(work, Facts.Person.Body.BreathSeconds));

    /// <inheritdoc cref="UnderBar(Work, DateTimeOffset)"/>
    /// <param name="seconds">Of the one round; none where repetitions were counted.</param>
    public bool UnderBar(string drill, string variant, double? seconds, DateTimeOffset at) =>
        content.FindDrill(drill) is { } known
        && known.Variants.FirstOrDefault(v => v.Key == variant) is { } done
        && !Past.At(at).Allow(known.LoadsOfRound(done, seconds, Facts.Person.Body.BreathSeconds));

    public StudentFacts Facts { get; }

    public PastBars Past { get; }

    public Moment Now { get; }

    public Bars Bars { get; }

    /// <summary>The bars of the moment's day.</summary>
    public DayBars Today { get; }

    /// <summary>Oldest first.</summary>
    public IReadOnlyList<TrainedSession> Sessions { get; }

    /// <summary>What those sessions come to, day by day.</summary>
    public TrainingHistory History { get; }

    /// <summary>However long ago.</summary>
    public DateOnly? LastSessionOn { get; }

    /// <summary>Of no skill: without a standard, forms and decisions.</summary>
    public Evidence Evidence { get; }

    /// <summary>In the order in which the content lists the skills.</summary>
    public IReadOnlyList<Course> Courses { get; }

    /// <summary>The first instant at which something of this changes without a new fact.</summary>
    public DateTimeOffset Until { get; }

    public int? DaysSinceLast => LastSessionOn is { } last ? Now.Day.DayNumber - last.DayNumber : null;

    /// <param name="now">No fact is later than this.</param>
    public static StudentState From(StudentFacts facts, Moment now, CatalogueContent content) => new(facts, now, content);

    public Course? On(string skill) => Courses.FirstOrDefault(c => c.Skill == skill);

    /// <summary>The way back that a break asks for on a day; none when none does.</summary>
    public WayBack? WayBackOn(DateOnly day) => WayBack.On(day, Sessions.Select(s => s.Day));

    public IReadOnlyList<Eased> EasedOn(DateOnly day) => Easing.On(day, proven, content, Now.DayOf);

    /// <summary>The facts on which a ladder's gates are judged, whether the student is on it or not.</summary>
    public Evidence For(Ladder ladder) =>
        Evidence with
        {
            Standard = ladder.Standards.Count > 0 ? Facts.Person.Standard : null,
            StaysShort =
                Facts.Enrolments.FirstOrDefault(e => e.Ladder.Skill == ladder.Skill) is { } enrolment
                && content.FindApproach(enrolment.Approach) is { MostStillSeconds: not null },
            Forms = [.. Facts.Forms.Where(f => f.Ladder == ladder.Skill)],
            // A stage that this ladder does not have says nothing about it.
            Decisions =
            [
                .. Facts
                    .Decisions.Where(d => d.Skill == ladder.Skill && d.Decision.ToStage >= 1 && d.Decision.ToStage <= ladder.Keystone)
                    .Select(d => d.Decision)
                    .OrderBy(d => d.At),
            ],
        };

    private IEnumerable<DateOnly> Turns() =>
        Bars.Turns().Concat(Easing.Turns(Facts, Now.DayOf)).Concat(LastSessionOn is { } last ? Absences.Turns.Select(last.AddDays) : []);

    /// <summary>What was worked in a session and no bar lay on, as sets without their numbers: enough for exposure.</summary>
    private static IEnumerable<LoggedSet> WorkOf(TrainedSession session) =>
        session
            .Worked.Where(w => !w.UnderBar)
            .Select(w => new LoggedSet(
                session.Id,
                session.Id,
                session.At,
                session.Day,
                w.Drill,
                w.Variant,
                w.Side,
                null,
                null,
                null,
                w.Skill
            ));
}
