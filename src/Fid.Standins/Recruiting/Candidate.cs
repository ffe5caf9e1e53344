using System.Globalization;

namespace Fid.Standins.Recruiting;

/// <summary>An accepted candidate, as docs/recruiting-feed.openapi.json has it.</summary>
public sealed record Candidate(
    string Id,
    string? GivenName,
    string? FamilyName,
    string? BirthDate,
    string? Email,
    string? Phone,
    string? Role,
    string? Site,
    string? Start
);

/// <summary>What Fid said became of a candidate.</summary>
/// <param name="Id">The notice's id: heard twice, it counts once.</param>
public sealed record HireStatus(string Id, string Status, string? Number, string? Start);

/// <summary>The candidates there are, in memory. All calls may come at once.</summary>
public sealed class CandidateStore
{
    private readonly Lock _lock = new();
    private readonly Dictionary<string, Candidate> _candidates;
    private readonly Dictionary<string, List<HireStatus>> _heard = [];
    private FeedMood _mood = FeedMood.Well;

    /// <summary>The candidates of the demonstration.</summary>
    /// <param name="settings">"Today" is the day they are accepted on, for a demonstration whose day is held still.</param>
    public CandidateStore(TimeProvider time, IConfiguration settings)
    {
        var today = settings["Today"] is { Length: > 0 } day
            ? DateOnly.ParseExact(day, "yyyy-MM-dd", CultureInfo.InvariantCulture)
            : DateOnly.FromDateTime(time.GetUtcNow().UtcDateTime);
        string InWeeks(int weeks) => today.AddDays((8 - (int)today.DayOfWeek) % 7 + (7 * weeks)).ToString("yyyy-MM-dd", null);
        _candidates = new[]
        {
            new Candidate("R-2041", "Leocadia", "Brzezińska", "1999-02-17", "leocadia.b@example.org", "+353 1 555 0188", "deckhand", "skerry", InWeeks(6)),
            // Has worked two seasons already, then written a little differently.
            new Candidate("R-2044", "June", "Nakamura", "1998-04-12", "jun.nakamura@example.org", "+353 1 555 0142", "galley-cook", "mv-corran", InWeeks(5)),
            new Candidate("R-2046", "Idris", "Oyelaran", null, "idris@example.org", null, "Ticket clerk", "Hallan Town", InWeeks(8)),
        }.ToDictionary(c => c.Id);
    }

    /// <summary>How the feed behaves, for trying out what Fid does about it.</summary>
    public FeedMood Mood
    {
        get
        {
            lock (_lock)
                return _mood;
        }
        set
        {
            lock (_lock)
                _mood = value;
        }
    }

    public IReadOnlyList<(Candidate Candidate, HireStatus? Last)> All()
    {
        lock (_lock)
            return [.. _candidates.Values.Select(c => (c, _heard.GetValueOrDefault(c.Id)?.LastOrDefault()))];
    }

    public void Put(Candidate candidate)
    {
        lock (_lock)
            _candidates[candidate.Id] = candidate;
    }

    /// <summary>False where there is no such candidate.</summary>
    public bool Hear(string candidate, HireStatus status)
    {
        lock (_lock)
        {
            if (!_candidates.ContainsKey(candidate))
                return false;
            if (!_heard.TryGetValue(candidate, out var heard))
                _heard[candidate] = heard = [];
            if (heard.TrueForAll(h => h.Id != status.Id))
                heard.Add(status);
            return true;
        }
    }
}

/// <summary>How the feed behaves.</summary>
public enum FeedMood
{
    Well,
    Down,
    Slow,
    Rubbish,
}
