using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Work;

/// <summary>Something Fid is to do by itself. Written in the transaction of what causes it, and done afterwards by whichever server is
/// free: until it is done it stays.</summary>
public sealed class Job
{
    public const int LongestTrouble = 500;

    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>What is to be done: the name of a kind of job.</summary>
    public required string Kind { get; init; }

    /// <summary>What it is to be done with, such as the id of an import; null for nothing. Jobs of one kind with one argument are done
    /// one after the other.</summary>
    public string? Argument { get; init; }

    /// <summary>Whether it is done again and again: there is one of its kind, which is never at its end.</summary>
    public bool Recurs { get; init; }

    public JobState State { get; set; }

    /// <summary>Not before this it is done.</summary>
    public required Instant Due { get; set; }

    public required Instant MadeAt { get; init; }

    /// <summary>How often it was tried since it last succeeded.</summary>
    public int Tries { get; set; }

    /// <summary>What went wrong last; null for nothing.</summary>
    public string? Trouble { get; set; }

    public Instant? StartedAt { get; set; }

    /// <summary>How far the run under way has come, in things done, of how many; null for what does not say so.</summary>
    public int? Done { get; set; }

    /// <summary>How many things the run under way has to do; null for what does not say so.</summary>
    public int? Of { get; set; }

    /// <summary>One that is to be done once, from a moment on.</summary>
    public static Job Once(string kind, Guid argument, Instant at) =>
        new()
        {
            Kind = kind,
            Argument = argument.ToString(),
            Due = at,
            MadeAt = at,
        };
}

/// <summary>Where a job stands. What is done is a <see cref="JobRun"/>.</summary>
public enum JobState
{
    /// <summary>It waits until it is due and somebody is free.</summary>
    Waiting,

    /// <summary>A server does it, or has died over it.</summary>
    Running,

    /// <summary>It could not be done, and is not tried again unless somebody asks for it.</summary>
    Failed,
}

/// <summary>A job that was done, or tried in vain. Of those that recur only what did something is kept.</summary>
public sealed class JobRun
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid JobId { get; init; }

    public required string Kind { get; init; }

    public string? Argument { get; init; }

    public required Instant StartedAt { get; init; }

    public required Instant EndedAt { get; init; }

    /// <summary>How many things were done.</summary>
    public required int Handled { get; init; }

    /// <summary>What went wrong; null for nothing.</summary>
    public string? Trouble { get; init; }
}

internal sealed class JobConfiguration : IEntityTypeConfiguration<Job>, IEntityTypeConfiguration<JobRun>
{
    public void Configure(EntityTypeBuilder<Job> job)
    {
        job.ToTable("jobs");
        job.Property(j => j.Kind).HasMaxLength(40);
        job.Property(j => j.Argument).HasMaxLength(200);
        job.Property(j => j.State).HasConversion<string>().HasMaxLength(10);
        job.Property(j => j.Trouble).HasMaxLength(Job.LongestTrouble);
        job.HasIndex(j => j.Kind).IsUnique().HasFilter("recurs");
        job.HasIndex(j => j.Due);
        // By this the triggers find what is asked for already.
        job.HasIndex(j => new { j.Kind, j.Argument }).HasFilter("state = 'Waiting'");
    }

    public void Configure(EntityTypeBuilder<JobRun> run)
    {
        run.ToTable("job_runs");
        run.Property(r => r.Kind).HasMaxLength(40);
        run.Property(r => r.Argument).HasMaxLength(200);
        run.Property(r => r.Trouble).HasMaxLength(Job.LongestTrouble);
        run.HasIndex(r => r.EndedAt);
    }
}
