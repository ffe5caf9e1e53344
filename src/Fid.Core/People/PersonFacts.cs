using NodaTime;

namespace Fid.Core.People;

/// <summary>What is known of a person, as far as it tells who they are. What is not known is null or empty.</summary>
/// <param name="Given">Given names.</param>
/// <param name="Family">Family names.</param>
/// <param name="Born">The birth date.</param>
/// <param name="Email">An e-mail address of their own.</param>
/// <param name="Phone">A telephone number of their own.</param>
/// <param name="Identifier">An official number, such as a tax number.</param>
/// <param name="OtherNames">Names they went or go by besides: a former family name, or a whole name.</param>
public sealed record PersonFacts(
    string Given,
    string Family,
    LocalDate? Born = null,
    string? Email = null,
    string? Phone = null,
    string? Identifier = null,
    IReadOnlyList<string>? OtherNames = null
);
