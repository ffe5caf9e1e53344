namespace Fid.Data.People;

/// <summary>A human being the firm knows, once, however many stints they work.</summary>
public sealed class Person
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
}
