using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Core.Fields;
using Fid.Data.People;
using Fid.Server.Lists;

namespace Fid.Server.People;

/// <summary>What somebody may see of the facts by which people are listed, found and sorted. Who may not see a name sees the
/// employee number in its place.</summary>
internal sealed class VisibleFacts
{
    private readonly Reader _reader;
    private readonly FieldRights _rights;
    private readonly bool _job;
    private readonly bool _kind;
    private readonly bool _site;
    private readonly bool _department;
    private readonly ListNames _names;

    /// <summary>Of everybody the reader reaches.</summary>
    public VisibleFacts(Reader reader, ListNames names)
        : this(reader, reader.Everybody, names) { }

    private VisibleFacts(Reader reader, FieldRights rights, ListNames names)
    {
        (_reader, _rights, _names) = (reader, rights, names);
        Name = Reader.Names(rights);
        Manager = Name && rights.Sees("manager");
        _job = rights.Sees("job");
        _kind = rights.Sees("kind");
        _site = rights.Sees("site");
        _department = rights.Sees("department");
        Badge = rights.Sees("badge");
        End = rights.Sees("end_date");
    }

    /// <summary>Of one record: what is shown of it, beyond what it is found and sorted by.</summary>
    public VisibleFacts On(CurrentRecord record) => _reader.On(record) is var rights && rights == _rights ? this : new VisibleFacts(_reader, rights, _names);

    /// <summary>The sensitive fields by whose values somebody may be found.</summary>
    public IReadOnlyList<string> SealedFields => [.. _reader.Fields.Set.FieldsAndColumns.Where(f => f.Sensitive && _rights.Sees(f.Key)).Select(f => f.Key)];

    /// <summary>Columns that may be seen, and whose texts people are found by when typed whole.</summary>
    public string[] NumbersInRows =>
        [
            .. _reader
                .Fields.Set.FieldsAndColumns.Where(f =>
                    f
                        is {
                            IsColumn: true,
                            Sensitive: false,
                            Type: FieldType.Text or FieldType.Identifier or FieldType.Iban or FieldType.Phone or FieldType.Email
                        }
                    && _rights.Sees(f.Key)
                )
                .Select(f => f.Key),
        ];

    /// <summary>Whether it may be seen who somebody reports to.</summary>
    public bool Manager { get; }

    /// <summary>Whether somebody may be found by their badge.</summary>
    public bool Badge { get; }

    /// <summary>Whether it may be seen when somebody leaves.</summary>
    public bool End { get; }

    /// <summary>The jobs of whose name a word begins one, as far as jobs may be seen.</summary>
    public string[] JobsLike(string word) => _job ? _names.CodesLike("jobs", word) : [];

    /// <summary>The same of sites.</summary>
    public string[] SitesLike(string word) => _site ? _names.CodesLike("sites", word) : [];

    /// <summary>Whether names may be seen; where not, nothing is found or sorted by them.</summary>
    public bool Name { get; }

    public string? Job(string? code) => _job ? _names.Job(code) : null;

    public string? Kind(string? kind) => _kind ? _names.Kind(kind) : null;

    public string? Site(string? code) => _site ? _names.Site(code) : null;

    public string? Department(string? code) => _department ? _names.Of("departments", code) : null;

    public string FullName(CurrentRecord record, string number) => Name ? record.FullName : number;

    /// <summary>A hire's head with what may be seen of it.</summary>
    public HireHead Of(HireHead head)
    {
        var facts = On(head.Record);
        return head with
        {
            GivenName = facts.Name ? head.GivenName : "",
            FamilyName = facts.Name ? head.FamilyName : head.Number,
            JobCode = facts._job ? head.JobCode : null,
            Kind = facts._kind ? head.Kind : null,
            SiteCode = facts._site ? head.SiteCode : null,
        };
    }
}
