using static Fid.Core.Fields.FieldType;
using static Fid.Core.Fields.Shipped.ShippedField;

namespace Fid.Core.Fields.Shipped;

/// <summary>How to reach the person, and whom to call in an emergency.</summary>
internal static class ContactFields
{
    private const string Section = "contact";

    public static IReadOnlyList<FieldDefinition> All { get; } =
    [
        Field(Section, "email", Email, "E-mail", "E-Mail", OfOwn).OfPerson().Needed("prepare"),
        Field(Section, "phone", Phone, "Telephone", "Telefon", OfOwn).OfPerson().Needed("arrive"),
        Field(Section, "mobile", Phone, "Mobile telephone", "Mobiltelefon", OfOwn).OfPerson(),
        Field(Section, "work_email", Email, "E-mail at work", "E-Mail dienstlich", ForWork),
        Field(Section, "work_phone", Phone, "Telephone at work", "Telefon dienstlich", ForWork),
        Field(Section, "street", Text, "Street", "Straße", Private).OfPerson(),
        Field(Section, "address_line", Text, "Address, second line", "Adresszusatz", Private).OfPerson(),
        Field(Section, "town", Text, "Town", "Ort", Private).OfPerson(),
        Field(Section, "region", Text, "County or region", "Region", Private).OfPerson(),
        Field(Section, "postcode", Text, "Postcode", "Postleitzahl", Private).OfPerson(),
        Field(Section, "country", Text, "Country", "Land", Private).OfPerson(),
        Field(Section, "emergency_name", Text, "Emergency contact", "Notfallkontakt", OfOwn).OfPerson().Needed("arrive"),
        Field(Section, "emergency_relation", Text, "Emergency contact is", "Notfallkontakt ist", OfOwn).OfPerson(),
        Field(Section, "emergency_phone", Phone, "Emergency telephone", "Notfalltelefon", OfOwn).OfPerson().Needed("arrive"),
        Field(Section, "emergency_name_2", Text, "Second emergency contact", "Zweiter Notfallkontakt", OfOwn).OfPerson(),
        Field(Section, "emergency_phone_2", Phone, "Second emergency telephone", "Zweites Notfalltelefon", OfOwn).OfPerson(),
    ];
}
