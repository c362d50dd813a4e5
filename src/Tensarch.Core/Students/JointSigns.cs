namespace Tensarch.Core.Students;

/// <summary>Something that a joint can or cannot do, asked in plain words.</summary>
/// <param name="Sided">Left and right are asked, and counted, each for itself.</param>
public sealed record JointSign(string Key, string Text, bool Sided);

/// <summary>
/// A question that nobody is asked to score: its signs are asked one by one, and what was told is counted. Source: safety, very mobile joints; judgement,
/// intake.
/// </summary>
/// <param name="From">So many are a yes.</param>
/// <param name="FromChild">Of someone under 16.</param>
/// <param name="FromOlder">Of someone of 50 and more.</param>
public sealed record JointSigns(IReadOnlyList<JointSign> Items, int From, int FromChild, int FromOlder)
{
    /// <summary>From this age on fewer are a yes.</summary>
    public const int Older = 50;

    /// <summary>What can be told: each sign, or each of its sides.</summary>
    public IEnumerable<string> Keys => Items.SelectMany(i => i.Sided ? [$"{i.Key}-left", $"{i.Key}-right"] : new[] { i.Key });

    /// <param name="told">Keys; one that is not known counts for nothing.</param>
    /// <param name="age">In years; none where it is not known.</param>
    public bool IsYes(IEnumerable<string> told, int? age) =>
        told.Intersect(Keys).Count()
        >= (
            age < Age.Grown ? FromChild
            : age >= Older ? FromOlder
            : From
        );
}
