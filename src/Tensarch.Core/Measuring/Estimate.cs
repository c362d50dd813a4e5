namespace Tensarch.Core.Measuring;

/// <summary>A value with the standard error of its mean, both in the measure's unit.</summary>
public readonly record struct Estimate(double Value, double StandardError);
