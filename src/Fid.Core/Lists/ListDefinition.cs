namespace Fid.Core.Lists;

/// <summary>One of the firm's lists: what its entries are, and what each says about itself besides a code and names.</summary>
/// <param name="Key">Its name in files, addresses and the database.</param>
/// <param name="Group">What it is about.</param>
/// <param name="Label">What it is called.</param>
/// <param name="About">What it is for, in a sentence.</param>
/// <param name="Columns">What every entry says about itself.</param>
/// <param name="NeededToOpen">Whether the first hire cannot be opened while it is empty.</param>
/// <param name="DeepestTree">For a tree, how many levels it may have; 0 for a flat list. A tree has a column "parent".</param>
/// <param name="HasNames">Whether an entry has a name beside its code; people, known by their numbers, have names of several parts.</param>
public sealed record ListDefinition(
    string Key,
    ListGroup Group,
    Label Label,
    Label About,
    IReadOnlyList<ListColumn> Columns,
    bool NeededToOpen = false,
    int DeepestTree = 0,
    bool HasNames = true
)
{
    private readonly Dictionary<string, ListColumn> _byKey = Columns.ToDictionary(c => c.Key, StringComparer.Ordinal);

    /// <summary>The column with a key, or null.</summary>
    public ListColumn? Find(string key) => _byKey.GetValueOrDefault(key);

    /// <summary>Whether a sheet can fill a column with this key: one of <see cref="Columns"/>, the code, or a name where entries have names.</summary>
    public bool Takes(string key) => key == EntryReader.Code || (HasNames && key is EntryReader.Name or EntryReader.NameDe) || Find(key) is not null;
}

/// <summary>What a list is about.</summary>
public enum ListGroup
{
    /// <summary>Where people work and for whom.</summary>
    Places,

    /// <summary>What they do there.</summary>
    Work,

    /// <summary>What they are paid.</summary>
    Pay,

    /// <summary>When they work, and how that is recorded.</summary>
    Time,

    /// <summary>What they hold, get and sign.</summary>
    Things,

    /// <summary>Words to choose from.</summary>
    Words,
}
