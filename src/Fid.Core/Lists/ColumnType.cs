namespace Fid.Core.Lists;

/// <summary>What a column of a list holds.</summary>
public enum ColumnType
{
    /// <summary>A line of text.</summary>
    Text,

    /// <summary>Text of several lines.</summary>
    LongText,

    /// <summary>A number.</summary>
    Number,

    /// <summary>A whole number.</summary>
    Whole,

    /// <summary>A date.</summary>
    Date,

    /// <summary>Yes or no.</summary>
    YesNo,

    /// <summary>One of the column's own options.</summary>
    Choice,

    /// <summary>An entry of a list, by its code.</summary>
    Entry,

    /// <summary>Entries of a list, by their codes.</summary>
    Entries,

    /// <summary>A telephone number.</summary>
    Phone,

    /// <summary>An address on the web.</summary>
    Link,

    /// <summary>A time zone of the IANA database.</summary>
    TimeZone,

    /// <summary>A country: two letters of ISO 3166.</summary>
    Country,

    /// <summary>A currency: three letters of ISO 4217.</summary>
    Currency,

    /// <summary>The days of the week on which nobody works: seven digits, Monday first, 1 for rest.</summary>
    RestDays,

    /// <summary>Pay bands, each from a date.</summary>
    Bands,

    /// <summary>Who leads, each from a date.</summary>
    Heads,

    /// <summary>Certificates with how much they are needed.</summary>
    Requirements,

    /// <summary>Rates for second jobs, each from a date.</summary>
    Rates,

    /// <summary>Slices of pay with a percentage each.</summary>
    Brackets,

    /// <summary>Holidays.</summary>
    Holidays,

    /// <summary>Shifts by letter.</summary>
    Shifts,

    /// <summary>A cycle of shift letters, a day each.</summary>
    Cycle,

    /// <summary>Options to choose from, labelled in each language.</summary>
    Options,

    /// <summary>A pay formula.</summary>
    Formula,
}
