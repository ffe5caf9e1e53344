namespace Fid.Core.Fields;

/// <summary>What a field holds. Values are JSON: texts for all but numbers, yes or no, and lists of choices.</summary>
public enum FieldType
{
    /// <summary>A line of text.</summary>
    Text,

    /// <summary>Several lines of text.</summary>
    LongText,

    /// <summary>A number.</summary>
    Number,

    /// <summary>An amount in the firm's currency.</summary>
    Money,

    /// <summary>A date, as ISO 8601 text.</summary>
    Date,

    /// <summary>True or false.</summary>
    YesNo,

    /// <summary>One of its options.</summary>
    Choice,

    /// <summary>Any of its options, as a list.</summary>
    Choices,

    /// <summary>Another person's employment.</summary>
    Person,

    /// <summary>An entry of one of the firm's lists, by its code.</summary>
    ListEntry,

    /// <summary>A file.</summary>
    File,

    /// <summary>An e-mail address.</summary>
    Email,

    /// <summary>A telephone number.</summary>
    Phone,

    /// <summary>An official number of the person, such as a tax number.</summary>
    Identifier,

    /// <summary>A bank account by ISO 13616, kept without spaces.</summary>
    Iban,

    /// <summary>What its formula comes to; entered by nobody.</summary>
    Computed,

    /// <summary>Any number of rows, whose columns are fields themselves.</summary>
    Rows,
}
