using Fid.Acts;
using Fid.Acts.Checklists;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Server.Lists;

namespace Fid.Server.Hires;

/// <summary>What the tasks of a hire are about, as far as a reader sees it in the record.</summary>
internal sealed class TaskNeeds
{
    private readonly RecordContent? _record;
    private readonly FieldRights _rights;
    private readonly ListNames _names;
    private readonly string _language;

    private TaskNeeds(RecordContent? record, FieldRights rights, ListNames names, string language) =>
        (_record, _rights, _names, _language) = (record, rights, names, language);

    /// <summary>Reads what the record holds, where a task asks for something of it.</summary>
    public static async Task<TaskNeeds> LoadAsync(FidDb db, Actor actor, HireUnderWay hire, Reader reader, ListNames names, CancellationToken cancellation)
    {
        var asks = hire.Head.Closed is null && hire.Tasks.Any(t => TaskFulfilment.LooksAtRecord(t.Kind));
        var records = asks ? await SelfCompletion.RecordsAsync(db, reader.Fields.Set, actor, [hire.Head.Id], cancellation) : [];
        return new TaskNeeds(records.GetValueOrDefault(hire.Head.Id), reader.On(hire.Head.Record), names, ReaderLanguage.Code);
    }

    /// <summary>What a task is about.</summary>
    public TaskNeedResponse[] Of(TaskKind kind, string[] about) =>
        _record is null
            ? []
            :
            [
                .. TaskFulfilment
                    .Needs(kind, about, _record)
                    .Select(n => (Need: n, Field: _record.Fields.Find(FieldOf(kind, n.About))))
                    .Where(n => n.Field is not null && _rights.Sees(n.Field.Key))
                    .Select(n => new TaskNeedResponse(LabelOf(kind, n.Need.About, n.Field!), n.Need.IsMet, n.Field!.Section)),
            ];

    // By the field that shows it, it is seen or not.
    private static string FieldOf(TaskKind kind, string about) =>
        kind switch
        {
            TaskKind.Issue or TaskKind.Return => "items",
            TaskKind.Certify => "certificates",
            _ => about,
        };

    private string LabelOf(TaskKind kind, string about, FieldDefinition field) =>
        FieldOf(kind, about) is var rows && rows != about ? _names.Of(rows, about) ?? about : field.Label(_language);
}
