using Fid.Core.Texts;
using NodaTime;

namespace Fid.Core.Certificates;

/// <summary>Which certificates somebody holds on a day, which run out, and which they lack (rules.md, section 17).</summary>
public static class CertificateStates
{
    /// <summary>The days before the last one on which a firm is warned where it says nothing else.</summary>
    public static IReadOnlyList<int> UsualWarnings { get; } = [90, 30, 7];

    /// <summary>The state of each kind that is needed, in their order, then of others held, by kind.</summary>
    /// <param name="today">The day that is asked about.</param>
    /// <param name="warn">The days left at which somebody is warned; none for never.</param>
    /// <param name="needed">What the person needs; each kind once.</param>
    /// <param name="held">What they hold. None ends before it begins.</param>
    public static CertificateAnswer Of(
        LocalDate today,
        IReadOnlyCollection<int> warn,
        IReadOnlyList<NeededCertificate> needed,
        IReadOnlyCollection<HeldCertificate> held
    )
    {
        var byKind = held.ToLookup(h => h.Kind, StringComparer.Ordinal);
        var kinds = needed.Select(n => n.Kind).Concat(byKind.Select(h => h.Key).Except(needed.Select(n => n.Kind)).Order(CodePointOrder.Instance));
        var states = kinds.Select(kind => StateOf(kind, today, warn, RunsOf(byKind[kind]))).ToList();
        var essential = needed.Where(n => n.Essential).Select(n => n.Kind).ToHashSet(StringComparer.Ordinal);
        return new CertificateAnswer(
            states,
            !states.Exists(s => essential.Contains(s.Kind) && s.State is CertificateState.Missing or CertificateState.Expired)
        );
    }

    private static CertificateStanding StateOf(string kind, LocalDate today, IReadOnlyCollection<int> warn, List<Run> runs)
    {
        var now = On(today, warn, runs);
        // Nothing changes but where a run begins, the day after one ends, and where as many days are left as are warned at.
        var turns = runs.Select(r => r.From)
            .Concat(runs.Where(r => r.To < LocalDate.MaxIsoValue).Select(r => r.To!.Value.PlusDays(1)))
            .Concat(runs.Where(r => r.To is not null).SelectMany(r => warn.Where(w => w < DaysTo(r.To!.Value)).Select(w => r.To!.Value.PlusDays(-w))))
            .Where(d => d > today)
            .Order();
        LocalDate? next = null;
        foreach (var day in turns)
        {
            var then = On(day, warn, runs);
            if (then.State == now.State && then.Warning == now.Warning)
                continue;
            next = day;
            break;
        }
        return new CertificateStanding(kind, now.State, now.Until, now.Warning, next);

        int DaysTo(LocalDate last) => Period.DaysBetween(today, last);
    }

    private static (CertificateState State, LocalDate? Until, int? Warning) On(LocalDate day, IReadOnlyCollection<int> warn, List<Run> runs)
    {
        if (runs.FindLast(r => r.From <= day) is not { } run)
            return (CertificateState.Missing, null, null);
        if (run.To is not { } until)
            return (CertificateState.Valid, null, null);
        var left = Period.DaysBetween(day, until);
        if (left < 0)
            return (CertificateState.Expired, until, null);
        var reached = warn.Where(w => left <= w).Order().Select(w => (int?)w).FirstOrDefault();
        return (reached is null ? CertificateState.Valid : CertificateState.Expiring, until, reached);
    }

    // Days held without a gap, in order.
    private static List<Run> RunsOf(IEnumerable<HeldCertificate> held)
    {
        var runs = new List<Run>();
        foreach (var one in held.OrderBy(h => h.From))
        {
            if (runs is [.., var last] && (last.To is not { } end || end == LocalDate.MaxIsoValue || one.From <= end.PlusDays(1)))
                runs[^1] = last with { To = last.To is null || one.To is null ? null : LocalDate.Max(last.To.Value, one.To.Value) };
            else
                runs.Add(new Run(one.From, one.To));
        }
        return runs;
    }

    private sealed record Run(LocalDate From, LocalDate? To);
}

/// <summary>A kind of certificate that somebody needs.</summary>
/// <param name="Essential">Whether they may not work without it.</param>
public sealed record NeededCertificate(string Kind, bool Essential);

/// <summary>A certificate that somebody holds.</summary>
/// <param name="From">The first day it holds.</param>
/// <param name="To">The last day it holds; null for ever.</param>
public sealed record HeldCertificate(string Kind, LocalDate From, LocalDate? To);

/// <summary>How somebody stands with all certificates.</summary>
/// <param name="Ready">Whether none that is essential is missing or expired.</param>
public sealed record CertificateAnswer(IReadOnlyList<CertificateStanding> Certificates, bool Ready);

/// <summary>How somebody stands with a kind of certificate.</summary>
/// <param name="Until">The last day of the unbroken days held that the day is in, else of the last before it; null for ever, or where none has
/// begun.</param>
/// <param name="Warning">The fewest days of those warned at that are still left, or more; null where none is reached.</param>
/// <param name="Next">The next day on which the state or the warning is another; null where there is none.</param>
public sealed record CertificateStanding(string Kind, CertificateState State, LocalDate? Until, int? Warning, LocalDate? Next);

/// <summary>What can be said of a kind of certificate on a day.</summary>
public enum CertificateState
{
    /// <summary>None has begun.</summary>
    Missing,

    /// <summary>The last that was held is over.</summary>
    Expired,

    /// <summary>Held, for no more days than somebody is warned at.</summary>
    Expiring,

    /// <summary>Held.</summary>
    Valid,
}
