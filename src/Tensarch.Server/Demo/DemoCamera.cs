using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Server.Data;
using Tensarch.Server.Measuring;

namespace Tensarch.Server.Demo;

/// <summary>Takes the demo's side pictures and, where one shows a measure, reads it from landmarks placed three times.</summary>
internal sealed class DemoCamera(
    TensarchDb db,
    CatalogueContent catalogue,
    PictureDesk pictures,
    ReadingDesk readings,
    StudioClock clock,
    Random random
)
{
    public async Task Photograph(Guid student, DemoPicture shown, Func<Guid> newId, CancellationToken ct)
    {
        var kept = await pictures.Keep(student, newId(), shown.Picture.View, clock.Now, shown.Picture.Draw(), ct);
        Simulator.Must(kept.Problems);
        var marks = new List<Guid>();
        for (var i = 0; i < 3; i++)
        {
            var placed = shown.Picture.Truth.Select(p => new PicturePoint(
                p.X + 1.5 * Normal.Next(random),
                p.Y + 1.5 * Normal.Next(random)
            ));
            var marked = await pictures.Mark(kept.Value.Row, new(newId(), new([.. placed])), ct);
            Simulator.Must(marked.Problems);
            marks.Add(marked.Value.Row.Id);
        }
        if (catalogue.FindMeasure(shown.Picture.View) is not { } measure)
            return;
        var request = new ReadingRequest(
            newId(),
            measure.Key,
            null,
            Warmth.Warm,
            null,
            Instrument.Picture,
            [],
            [],
            4,
            5,
            0,
            null,
            clock.Now,
            shown.Level,
            Marks: marks
        );
        Simulator.Must((await readings.Take(student, request, ct)).Problems);
        db.ChangeTracker.Clear();
    }
}
