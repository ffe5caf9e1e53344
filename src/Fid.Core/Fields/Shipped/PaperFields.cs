using static Fid.Core.Fields.FieldType;
using static Fid.Core.Fields.Shipped.ShippedField;

namespace Fid.Core.Fields.Shipped;

/// <summary>Papers seen, read and signed.</summary>
internal static class PaperFields
{
    private const string Section = "papers";

    public static IReadOnlyList<FieldDefinition> All { get; } =
    [
        Field(Section, "contract_sent_on", Date, "Contract sent on", "Vertrag verschickt am", ForWork),
        Field(Section, "contract_signed_on", Date, "Contract signed on", "Vertrag unterschrieben am", ForWork),
        Field(Section, "identity_seen_on", Date, "Identity paper seen on", "Ausweis gesehen am", ForWork).OfPerson(),
        Field(Section, "identity_kind", Choice, "Identity paper", "Ausweispapier", Private)
            .OfPerson()
            .Of(("passport", "passport", "Reisepass"), ("card", "identity card", "Personalausweis"), ("permit", "residence permit", "Aufenthaltstitel")),
        Field(Section, "right_to_work_seen_on", Date, "Right to work seen on", "Arbeitsrecht gesehen am", ForWork).OfPerson(),
        Field(Section, "references_checked", YesNo, "References checked", "Referenzen geprüft", ForWork),
        Field(Section, "privacy_read_on", Date, "Privacy notice read on", "Datenschutzhinweis gelesen am", OfOwn),
        Field(Section, "handbook_read_on", Date, "Handbook read on", "Handbuch gelesen am", OfOwn),
        Field(Section, "contract_file", FieldType.File, "Signed contract", "Unterschriebener Vertrag", ForWork)
            .Taking(FileGroup.Pdf, FileGroup.Picture, FileGroup.Document),
        Field(Section, "identity_file", FieldType.File, "Copy of the identity paper", "Kopie des Ausweispapiers", Private)
            .OfPerson()
            .Taking(FileGroup.Pdf, FileGroup.Picture),
        Field(Section, "papers_note", LongText, "Note on papers", "Hinweis zu Unterlagen", ForWork),
    ];
}
