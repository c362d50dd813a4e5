namespace Tensarch.Server.Hosting.Door;

/// <summary>A fact: its day or instant does not lie ahead.</summary>
[AttributeUsage(AttributeTargets.Parameter | AttributeTargets.Property)]
public sealed class NotFutureAttribute : Attribute;
