using System.Text.Json;
using Fid.Core.Pay;

namespace Fid.Server.People;

/// <summary>What somebody is paid, from what their record says.</summary>
internal static class PayReading
{
    /// <summary>The fields it is worked out from.</summary>
    public static readonly string[] Fields = ["pay_rate", "paid_by", "weekly_hours", "pay_group"];

    // Until shift patterns are read for it, somebody paid by the day is taken to work five.
    private const decimal WorkingDaysPerWeek = 5;

    /// <summary>The rate; null where something is missing to work it out.</summary>
    /// <param name="groups">How long the periods of each pay group are.</param>
    public static PayRate? Rate(IReadOnlyDictionary<string, JsonElement?> values, IReadOnlyDictionary<string, PayPeriod> groups, decimal fullTimeHours)
    {
        if (
            values.Number("pay_rate") is not { } amount
            || values.Number("weekly_hours") is not { } hours
            || !Enum.TryParse<PayPeriod>(values.Text("paid_by"), ignoreCase: true, out var per)
            || values.Text("pay_group") is not { } group
            || !groups.TryGetValue(group, out var every)
        )
            return null;
        return PayRate.Of(amount, per, hours, fullTimeHours, WorkingDaysPerWeek, every).Answer;
    }
}
