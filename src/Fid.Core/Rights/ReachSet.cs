namespace Fid.Core.Rights;

/// <summary>Some of the reaches of a <see cref="RoleSet"/>, by their places: those by which a right is given, or those that reach somebody.</summary>
public readonly record struct ReachSet
{
    /// <summary>How many different reaches a set can tell apart.</summary>
    public const int Most = 128;

    private readonly UInt128 _places;

    private ReachSet(UInt128 places) => _places = places;

    /// <summary>No reach.</summary>
    public static ReachSet None => default;

    /// <summary>Every reach.</summary>
    public static ReachSet Whole => new(UInt128.MaxValue);

    /// <summary>The reach at a place, from 0 to <see cref="Most"/>, not included.</summary>
    public static ReachSet At(int place) => new(UInt128.One << place);

    /// <summary>Whether there is none in it.</summary>
    public bool IsEmpty => _places == UInt128.Zero;

    /// <summary>Whether the reach at a place is in it.</summary>
    public bool Has(int place) => (_places & (UInt128.One << place)) != UInt128.Zero;

    /// <summary>Whether a reach is in both.</summary>
    public bool Overlaps(ReachSet other) => (_places & other._places) != UInt128.Zero;

    /// <summary>Whether all of another's are in it.</summary>
    public bool Contains(ReachSet other) => (other._places & ~_places) == UInt128.Zero;

    /// <summary>The reaches of both.</summary>
    public static ReachSet operator |(ReachSet one, ReachSet other) => new(one._places | other._places);

    /// <summary>The places of its reaches, in order.</summary>
    public IEnumerable<int> Places()
    {
        for (var place = 0; place < Most; place++)
            if (Has(place))
                yield return place;
    }
}
