using Google.OrTools.Sat;
using Tensarch.Core.Programmes;

namespace Tensarch.Solver;

/// <summary>How the rules of a piece are put into its model: as they are, some of them only, or each under a literal that it can be taken away by.</summary>
internal sealed class RuleBook
{
    private readonly IReadOnlySet<PieceRule>? only;
    private readonly Dictionary<PieceRule, BoolVar>? literals;

    private RuleBook(bool asked, IReadOnlySet<PieceRule>? only, Dictionary<PieceRule, BoolVar>? literals) =>
        (Asked, this.only, this.literals) = (asked, only, literals);

    /// <summary>All rules, and an objective.</summary>
    public static RuleBook Whole => new(false, null, null) { Weighs = true };

    /// <summary>Each rule under an assumption.</summary>
    /// <param name="only">Of these rules, where not all are meant.</param>
    public static RuleBook Assumed(bool asked, IReadOnlySet<PieceRule>? only = null) => new(asked, only, []);

    /// <summary>Only these rules.</summary>
    public static RuleBook Of(IReadOnlySet<PieceRule> rules, bool asked) => new(asked, rules, null);

    /// <summary>What goals ask for is a rule, and not a wish.</summary>
    public bool Asked { get; }

    /// <summary>There is something to be made small.</summary>
    public bool Weighs { get; private init; }

    public IEnumerable<PieceRule> Rules => literals!.Keys;

    /// <param name="constraints">All of them are the rule.</param>
    public void Put(CpModel model, PieceRule rule, Func<IReadOnlyList<Constraint>> constraints)
    {
        if (only?.Contains(rule) == false)
            return;
        var put = constraints();
        if (literals is null)
            return;
        if (!literals.TryGetValue(rule, out var literal))
            literals[rule] = literal = model.NewBoolVar(rule.ToString());
        foreach (var constraint in put)
            constraint.OnlyEnforceIf(literal);
    }

    /// <summary>To be called when all rules are there.</summary>
    public void Assume(CpModel model)
    {
        if (literals is not null)
            model.AddAssumptions(literals.Values);
    }

    public IEnumerable<PieceRule> Named(IEnumerable<int> indices)
    {
        var named = indices.ToHashSet();
        return literals!.Where(l => named.Contains(l.Value.GetIndex())).Select(l => l.Key);
    }
}
