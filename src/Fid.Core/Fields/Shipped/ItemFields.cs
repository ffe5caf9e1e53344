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
        Field(Section, "items_held", Choices, "Items held", "Ausgegeben", ForWork) with
        {
            List = "items",
        },
        Field(Section, "locker", Text, "Locker", "Spind", ForWork),
        Field(Section, "keys", Text, "Keys", "Schlüssel", ForWork),
        Field(Section, "laptop", Text, "Laptop, serial number", "Laptop, Seriennummer", ForWork),
        Field(Section, "radio", Text, "Radio, serial number", "Funkgerät, Seriennummer", ForWork),
        Field(Section, "items_note", LongText, "Note on items", "Hinweis zu Ausgegebenem", ForWork),
    ];
}
