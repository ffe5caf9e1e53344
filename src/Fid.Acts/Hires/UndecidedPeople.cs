using Fid.Acts.People;
using Fid.Core;
using Fid.Core.People;
using Fid.Data;

namespace Fid.Acts.Hires;

/// <summary>Of whom it has not been said whether they are somebody the firm knows, or somebody who is being opened beside them.</summary>
public static class UndecidedPeople
{
    /// <summary>What is to be said of each hire first, in their order; null for nothing.</summary>
    public static async Task<IReadOnlyList<Problem?>> OfAsync(
        IReadOnlyList<NewHireRequest> requests,
        Reader reader,
        PeopleIndex people,
        FidDb db,
        CancellationToken cancellation
    )
    {
        var facts = requests.Select(r => KnownRequest.Of(r).ToFacts()).ToList();
        // Nobody is found by what the reader may not see of them.
        if (!reader.SeesNames || !facts.Exists(PeopleIndex.SaysEnough))
            return new Problem?[requests.Count];
        var known = await people.MatcherAsync(db, reader.Sees, cancellation);
        var twins = Twins(requests);
        var alike = facts.ConvertAll(f => PeopleIndex.Same(known, f).Select(m => Guid.Parse(m.Id)).ToList());
        var told = await reader.KnownAsync(db, [.. alike.SelectMany(a => a).Distinct()], cancellation);
        return
        [
            .. requests.Select(
                (request, i) =>
                    request.Person is null && alike[i].Exists(who => told.Contains(who) && !IsOther(request, who))
                        ? new Problem("/person", "undecided", "This looks like somebody the firm knows. Say whether it is them.")
                    : twins[i] is { } twin
                        ? new Problem("/person", "twice", $"Row {twin + 1} says much the same. Take one away, or say that they are two people.")
                    : null
            ),
        ];
    }

    /// <summary>For each hire the place, from 0, of an earlier one that is most likely the same person, where nobody said that it is
    /// not; null for none.</summary>
    public static int?[] Twins(IReadOnlyList<NewHireRequest> requests)
    {
        var facts = requests.Select(r => KnownRequest.Of(r).ToFacts()).ToList();
        var rows = new PersonMatcher(facts.Select((f, i) => (i.ToString(System.Globalization.CultureInfo.InvariantCulture), f)));
        return
        [
            .. requests.Select(
                (request, i) =>
                    PeopleIndex
                        .Same(rows, facts[i])
                        .Select(m => int.Parse(m.Id, System.Globalization.CultureInfo.InvariantCulture))
                        .Where(j => j < i && !IsOther(request, requests[j].Id))
                        .Cast<int?>()
                        .FirstOrDefault()
            ),
        ];
    }

    private static bool IsOther(NewHireRequest request, Guid who) => request.NotThese?.Contains(who) == true;
}
