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
    private readonly bool _job;
    private readonly bool _kind;
    private readonly bool _site;
    private readonly bool _department;
    private readonly ListNames _names;

    public VisibleFacts(Reader reader, ListNames names)
    {
        Name = reader.SeesNames;
        Manager = Name && reader.Sees("manager");
        _job = reader.Sees("job");
        _kind = reader.Sees("kind");
        _site = reader.Sees("site");
        _department = reader.Sees("department");
        Badge = reader.Sees("badge");
        End = reader.Sees("end_date");
        SealedFields = [.. reader.Fields.Set.FieldsAndColumns.Where(f => f.Sensitive && reader.Sees(f.Key)).Select(f => f.Key)];
        NumbersInRows =
        [
            .. reader
                .Fields.Set.FieldsAndColumns.Where(f =>
                    f is { IsColumn: true, Sensitive: false, Type: FieldType.Text or FieldType.Identifier or FieldType.Phone or FieldType.Email }
                    && reader.Sees(f.Key)
                )
                .Select(f => f.Key),
        ];
        _names = names;
    }

    /// <summary>The sensitive fields by whose values somebody may be found.</summary>
    public IReadOnlyList<string> SealedFields { get; }

    /// <summary>Columns that may be seen, and whose texts people are found by when typed whole.</summary>
    public string[] NumbersInRows { get; }

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
    public HireHead Of(HireHead head) =>
        head with
        {
            GivenName = Name ? head.GivenName : "",
            FamilyName = Name ? head.FamilyName : head.Number,
            JobCode = _job ? head.JobCode : null,
            Kind = _kind ? head.Kind : null,
            SiteCode = _site ? head.SiteCode : null,
        };
}
