using Fid.Core.Pay;

namespace Fid.Data.Lists;

/// <summary>People paid together.</summary>
public sealed class PayGroup : ListEntry
{
    public required PayPeriod Every { get; set; }
}

internal sealed class PayGroupConfiguration : ListEntryConfiguration<PayGroup>;
