namespace Fid.Core.Fields;

/// <summary>A section of the record.</summary>
/// <param name="Key">Its name in files.</param>
/// <param name="Labels">Its label by language.</param>
public sealed record FieldSection(string Key, IReadOnlyDictionary<string, string> Labels);
