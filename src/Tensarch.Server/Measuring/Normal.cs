namespace Tensarch.Server.Measuring;

/// <summary>Standard normal numbers for the simulated device and the demo (Box and Muller, 1958).</summary>
public static class Normal
{
    public static double Next(Random random) =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
}
