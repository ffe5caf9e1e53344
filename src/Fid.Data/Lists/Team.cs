namespace Fid.Data.Lists;

/// <summary>People who share the tasks of one kind, such as stores or IT.</summary>
public sealed class Team : ListEntry
{
}

internal sealed class TeamConfiguration : ListEntryConfiguration<Team>;
