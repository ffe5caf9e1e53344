using NodaTime;

namespace Fid.Server.Hires;

/// <summary>How far a hire is, in required tasks.</summary>
public sealed record ReadinessResponse(int Done, int Of, int Percent);

/// <summary>A hire as a rope with a knot a stage.</summary>
public sealed record RopeResponse(LocalDate From, LocalDate To, bool Frayed, KnotResponse[] Knots);

public sealed record KnotResponse(string Stage, LocalDate Day, bool Passed);
