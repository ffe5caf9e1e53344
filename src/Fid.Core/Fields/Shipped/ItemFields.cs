using static Fid.Core.Fields.FieldType;
using static Fid.Core.Fields.Shipped.ShippedField;

namespace Fid.Core.Fields.Shipped;

/// <summary>What was issued, and in which size.</summary>
internal static class ItemFields
{
    private const string Section = "items";

    public static IReadOnlyList<FieldDefinition> All { get; } =
    [
        Field(Section, "clothing_size", Choice, "Clothing size", "Kleidergröße", OfOwn)
            .OfPerson()
            .Of(("XS", "XS", "XS"), ("S", "S", "S"), ("M", "M", "M"), ("L", "L", "L"), ("XL", "XL", "XL"), ("XXL", "XXL", "XXL")),
        Field(Section, "shoe_size", Number, "Shoe size", "Schuhgröße", OfOwn).OfPerson().Between(20, 60),
        Rows(
            Section,
            "items",
            "Items",
            "Gegenstände",
            ForWork,
            Entry(Section, "item", "items", "Item", "Gegenstand", Same).Always(),
            Field(Section, "quantity", Number, "Quantity", "Anzahl", Same).Between(1, 1000),
            Field(Section, "serial", Text, "Serial number", "Seriennummer", Same),
            Field(Section, "size", Text, "Size", "Größe", Same),
            Field(Section, "issued", Date, "Issued", "Ausgegeben", Same),
            Field(Section, "expected", Date, "Expected back", "Rückgabe bis", Same),
            Field(Section, "returned", Date, "Returned", "Zurück", Same),
            Field(Section, "note", Text, "Note", "Hinweis", Same)
        ) with
        {
            RowKey = "item",
            Dates = new RowDates("issued", "returned"),
        },
        Field(Section, "items_note", LongText, "Note on items", "Hinweis zu Ausgegebenem", ForWork),
    ];
}
