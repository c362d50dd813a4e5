using System.Text.Json;
using System.Text.Json.Serialization;
using Tensarch.Core;
using Tensarch.Core.Programmes;
using Tensarch.Core.Students;

namespace Tensarch.Solver;

/// <param name="Work"><inheritdoc cref="CpWeekSolver" path="/param[@name='work']"/></param>
/// <param name="Left"><inheritdoc cref="CpWeekSolver" path="/param[@name='left']"/></param>
/// <param name="Asked">Given, it is asked why not, and not for a plan: whether what goals ask for is a rule as well.</param>
/// <param name="Again">A process has ended over it already: it is searched in another way.</param>
internal sealed record SolverQuestion(PieceProblem Problem, double Work, int Left, bool? Asked = null, bool Again = false);

/// <param name="Answer">None where there is no plan, or none was asked for.</param>
internal sealed record SolverReply(PieceAnswer? Answer, IReadOnlyList<PieceRule>? Conflict);

/// <summary>Answers a question a line from its input, until that ends.</summary>
internal static class SolverWorker
{
    private static readonly JsonSerializerOptions Options = CoreJson.Apply(
        new(JsonSerializerDefaults.Web) { IncludeFields = true, Converters = { new SetConverter<LoadTag>(), new SetConverter<string>() } }
    );

    /// <summary>The library writes sets that are only read, and does not read them.</summary>
    private sealed class SetConverter<T> : JsonConverter<IReadOnlySet<T>>
    {
        public override IReadOnlySet<T> Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            JsonSerializer.Deserialize<HashSet<T>>(ref reader, options)!;

        public override void Write(Utf8JsonWriter writer, IReadOnlySet<T> value, JsonSerializerOptions options) =>
            JsonSerializer.Serialize<IEnumerable<T>>(writer, value, options);
    }

    public static string Line<T>(T value) => JsonSerializer.Serialize(value, Options);

    public static T Read<T>(string line) => JsonSerializer.Deserialize<T>(line, Options)!;

    public static void Main()
    {
        while (Console.ReadLine() is { } line)
            Console.WriteLine(Line(Reply(Read<SolverQuestion>(line))));
    }

    private static SolverReply Reply(SolverQuestion question)
    {
        var solver = new CpWeekSolver(question.Work, question.Left, question.Again);
        return question.Asked is { } asked
            ? new(null, solver.Conflict(question.Problem, asked))
            : new(solver.Solve(question.Problem), null);
    }
}
