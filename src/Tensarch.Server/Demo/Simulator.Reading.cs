using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
using Tensarch.Server.Measuring;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Demo;

/// <summary>What is read on a simulated student, and when.</summary>
internal sealed partial class Simulator
{
    private async Task<bool> WantsRetest(CancellationToken ct) =>
        (await Now(ct))
            .State.Courses.SelectMany(s => s.Judge(gate))
            .Any(v => v is { State: GateState.Retest, Next: { Code: "retest", NotBefore: { } day } } && day <= Clock.Today);

    /// <summary>Everything at the baseline; later what the present gates read. Holds are tried twice, five minutes apart.</summary>
    private async Task Read(bool baseline, DateTimeOffset at, CancellationToken ct)
    {
        time.Set(at);
        var standing = await Now(ct);
        var started = who.Skills.Where(s => s.From is null).Select(s => s.Skill).ToHashSet();
        var begins = who.Skills.Where(s => s.From is not null).SelectMany(s => catalogue.MeasuresOf(catalogue.NewestLadder(s.Skill)!));
        await Take(
            !baseline && standing.State.Courses.Count > 0 ? Wanted(standing)
                : started.Count == 0 ? body.Measures
                : body.Measures.Except(begins.Select(m => m.Key)),
            at,
            ct
        );
    }

    private async Task Take(IEnumerable<string> measures, DateTimeOffset at, CancellationToken ct)
    {
        var bars = (await Now(ct)).Bars;
        foreach (var measure in measures.Distinct().Select(catalogue.Measure).Where(m => m.BarredBy(bars) is null).ToList())
        foreach (var range in body.Of(measure.Key).ToList())
        {
            var times = measure.Kind == MeasureKind.Hold ? 2 : 1;
            for (var attempt = 0; attempt < times; attempt++)
                await Take(measure, range, at.AddSeconds(300 * attempt + random.Next(240)), attempt, ct);
        }
        Written();
    }

    private async Task Take(Measure measure, TrueRange range, DateTimeOffset at, int attempt, CancellationToken ct)
    {
        time.Set(at.AddMinutes(15));
        var day = Clock.DayOf(at);
        var counts = measure.Kind == MeasureKind.Rate;
        var request = new ReadingRequest(
            NewId(),
            measure.Key,
            range.Side,
            Warmth.Warm,
            measure.Standards.Count > 0 ? who.Standard : null,
            measure.Instruments[0],
            counts ? [] : body.Trials(range, day, attempt),
            [],
            4,
            6,
            0,
            null,
            at,
            range.Level,
            counts ? body.Successes(range, day, CountedAttempts) : null,
            counts ? CountedAttempts : null,
            Confirmed: true
        );
        Must((await Readings.Take(id, request, ct)).Problems);
    }

    private IEnumerable<string> Wanted(Standing standing) =>
        standing
            .State.Courses.SelectMany(s =>
                s.Judge(gate).SelectMany(v => v.Tests).Select(t => t.Test.ReadMeasure).Append(s.Compare(catalogue)?.Measure)
            )
            .OfType<string>();
}
