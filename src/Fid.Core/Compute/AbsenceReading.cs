using Fid.Core.Calendars;
using Fid.Core.Json;

namespace Fid.Core.Compute;

/// <summary>Reads when somebody is away.</summary>
internal static class AbsenceReading
{
    private static readonly Shape Shape = new("from", "to", "standIn?");

    public static Absence Read(ref QuestionReader question)
    {
        var absence = new Absence(default, default, null);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Shape, ref seen) is var at and >= 0)
                absence = at switch
                {
                    0 => absence with { From = question.Date() },
                    1 => absence with { To = question.Date() },
                    _ => absence with { StandIn = question.Id() },
                };
        return absence;
    }
}
