namespace Tensarch.Core;

/// <summary>A mistake in what someone typed: a stable code, the field it belongs to, and the numbers to word it with.</summary>
/// <param name="Rules">Of a plan that there is none of: rules that cannot all hold.</param>
public sealed record Problem(
    string Code,
    string Field,
    IReadOnlyDictionary<string, double>? Numbers = null,
    IReadOnlyList<Programmes.PieceRule>? Rules = null
)
{
    public static Problem Of(string code, string field, params (string Name, double Value)[] numbers) =>
        new(code, field, numbers.Length == 0 ? null : numbers.ToDictionary(n => n.Name, n => n.Value));
}

/// <summary>A value, or the problems that stand in its way; never both.</summary>
public readonly record struct Result<T>
{
    private readonly T? value;

    private Result(T? value, IReadOnlyList<Problem> problems) => (this.value, Problems) = (value, problems);

    public IReadOnlyList<Problem> Problems { get; }

    public bool IsOk => Problems.Count == 0;

    /// <exception cref="InvalidOperationException">There are problems instead.</exception>
    public T Value => IsOk ? value! : throw new InvalidOperationException(Problems[0].Code);

    internal static Result<T> Good(T value) => new(value, []);

    public static implicit operator Result<T>(T value) => new(value, []);

    public static implicit operator Result<T>(Problem problem) => new(default, [problem]);

    public static implicit operator Result<T>(List<Problem> problems) => new(default, problems);
}

public static class Result
{
    /// <summary>A good result of a type that converts to none by itself, such as a list.</summary>
    public static Result<T> Of<T>(T value) => Result<T>.Good(value);
}
