using static Fid.Core.Fields.FieldType;
using static Fid.Core.Fields.Shipped.ShippedField;

namespace Fid.Core.Fields.Shipped;

/// <summary>Who the person is.</summary>
internal static class PersonFields
{
    private const string Section = "person";

    public static IReadOnlyList<FieldDefinition> All { get; } =
    [
        Field(Section, "given_name", Text, "Given name", "Vorname", OwnName).OfPerson().Needed("prepare"),
        Field(Section, "family_name", Text, "Family name", "Nachname", OwnName).OfPerson().Needed("prepare"),
        Field(Section, "known_as", Text, "Known as", "Rufname", Known).OfPerson(),
        Field(Section, "former_name", Text, "Former name", "Früherer Name", OwnProof).OfPerson(),
        Field(Section, "birth_date", Date, "Date of birth", "Geburtsdatum", OwnProof).OfPerson().Needed("arrive"),
        Field(Section, "age", Computed, "Age", "Alter", Private).OfPerson() with
        {
            Default = new FieldDefault(null, "ageOn(birth_date, today())"),
        },
        Field(Section, "birth_place", Text, "Place of birth", "Geburtsort", Private).OfPerson(),
        Field(Section, "nationality", Text, "Nationality", "Staatsangehörigkeit", Private).OfPerson(),
        Field(Section, "tax_number", Identifier, "Tax number", "Steuernummer", OwnProof).OfPerson().Sealed(),
        Field(Section, "social_number", Identifier, "Social insurance number", "Sozialversicherungsnummer", OwnProof).OfPerson().Sealed(),
        Field(Section, "languages", Text, "Languages spoken", "Sprachen", OfOwn).OfPerson(),
        Field(Section, "photo", FieldType.File, "Photo", "Foto", Known).OfPerson().Taking(FileGroup.Picture),
        Field(Section, "pronouns", Text, "Pronouns", "Pronomen", Known).OfPerson(),
        Field(Section, "marital_status", Choice, "Marital status", "Familienstand", Private)
            .OfPerson()
            .Of(
                ("single", "single", "ledig"),
                ("married", "married", "verheiratet"),
                ("partnership", "in a partnership", "in Partnerschaft"),
                ("separated", "separated or divorced", "getrennt oder geschieden"),
                ("widowed", "widowed", "verwitwet")
            ),
    ];
}
