using static Fid.Core.Fields.FieldType;
using static Fid.Core.Fields.Shipped.ShippedField;

namespace Fid.Core.Fields.Shipped;

/// <summary>What the person holds and has learned.</summary>
internal static class CertificateFields
{
    private const string Section = "certificates";

    public static IReadOnlyList<FieldDefinition> All { get; } =
    [
        Rows(
                Section,
                "certificates",
                "Certificates",
                "Nachweise",
                OfOwn,
                Entry(Section, "kind", "certificates", "Certificate", "Nachweis", Same).Always(),
                Field(Section, "need", Choice, "Needed", "Erforderlich", ForWork)
                    .Of(("essential", "essential", "zwingend"), ("desirable", "desirable", "erwünscht")),
                Field(Section, "number", Text, "Number", "Nummer", Same),
                Field(Section, "from", Date, "From", "Von", Same),
                Field(Section, "until", Date, "Until", "Bis", Same),
                Field(Section, "file", FieldType.File, "File", "Datei", Same).Taking(FileGroup.Picture, FileGroup.Pdf),
                Field(Section, "note", Text, "Note", "Hinweis", Same)
            )
            .OfPerson() with
        {
            RowKey = "kind",
            Dates = new RowDates("from", "until"),
        },
        Field(Section, "medical_limits", LongText, "Limits of fitness", "Einschränkungen", Private).OfPerson(),
        Field(Section, "licence_classes", Choices, "Driving licence", "Führerschein", OfOwn)
            .OfPerson()
            .Of(
                ("B", "B, cars", "B, Pkw"),
                ("C", "C, lorries", "C, Lkw"),
                ("D", "D, buses", "D, Busse"),
                ("BE", "BE, cars with a trailer", "BE, Pkw mit Anhänger")
            ),
        Field(Section, "licence_until", Date, "Driving licence until", "Führerschein bis", OfOwn).OfPerson().When("licence_classes != null"),
        Field(Section, "safety_training_on", Date, "Safety training on", "Sicherheitsunterweisung am", ForWork),
        Field(Section, "qualification", Text, "Highest qualification", "Höchster Abschluss", OfOwn).OfPerson(),
        Field(Section, "qualification_year", Number, "Qualified in", "Abschluss im Jahr", OfOwn).OfPerson().Between(1950, 2199),
        Field(Section, "trainer", YesNo, "May train others", "Darf ausbilden", ForWork),
    ];
}
