using System.Globalization;
using Fid.Acts.Mail;
using Fid.Data.Firms;
using Fid.Data.Hires;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using NodaTime;
using Calendar = Ical.Net.Calendar;
using Duration = NodaTime.Duration;

namespace Fid.Acts.Invitations;

/// <summary>An invitation as its reader reads it, and as their calendar does (RFC 5545, 5546).</summary>
internal static class InvitationWords
{
    /// <summary>What the text of an invitation can name.</summary>
    /// <param name="link">Where it stands in Fid.</param>
    public static object Of(TaskInvitation invitation, MailTo to, string firm, Uri link)
    {
        var culture = CultureInfo.GetCultureInfo(to.Language == "de" ? "de-DE" : "en-IE");
        return new
        {
            name = to.Name.Split(' ')[0],
            firm,
            what = invitation.What,
            hire = invitation.Whom,
            day = invitation.Day.ToString("dddd d MMMM", culture),
            time = invitation.At.ToString("HH:mm", culture),
            until = invitation.At.PlusMinutes(invitation.Minutes).ToString("HH:mm", culture),
            place = invitation.Place,
            link = link.ToString(),
            changed = invitation is { Sequence: > 0, Cancelled: false },
            cancelled = invitation.Cancelled,
        };
    }

    /// <summary>The event. It names nobody but whoever gets it.</summary>
    /// <param name="from">The address that messages come from.</param>
    public static CalendarPart Calendar(TaskInvitation invitation, MailTo to, Firm firm, string from, Instant now)
    {
        var begins = firm.Zone.AtLeniently(invitation.Day + invitation.At).ToInstant();
        var method = invitation.Cancelled ? "CANCEL" : "REQUEST";
        var calendar = new Calendar
        {
            ProductId = "-//Fid//Invitations//EN",
            Scale = "GREGORIAN",
            Method = method,
        };
        calendar.Events.Add(
            new CalendarEvent
            {
                Uid = $"{invitation.Id:N}@fid",
                Sequence = invitation.Sequence,
                Status = invitation.Cancelled ? Ical.Net.EventStatus.Cancelled : Ical.Net.EventStatus.Confirmed,
                Summary = invitation.Whom is { } whom ? $"{invitation.What}, {whom}" : invitation.What,
                Location = invitation.Place,
                Start = Utc(begins),
                End = Utc(begins + Duration.FromMinutes(invitation.Minutes)),
                DtStamp = Utc(now),
                Organizer = new Organizer($"mailto:{from}") { CommonName = firm.Name },
                Attendees =
                [
                    new Attendee($"mailto:{to.Address}")
                    {
                        CommonName = to.Name,
                        Rsvp = !invitation.Cancelled,
                        Role = Ical.Net.ParticipationRole.RequiredParticipant,
                        ParticipationStatus = Ical.Net.EventParticipationStatus.NeedsAction,
                    },
                ],
            }
        );
        return new CalendarPart(new CalendarSerializer().SerializeToString(calendar)!, method);
    }

    private static CalDateTime Utc(Instant at) => new(at.ToDateTimeUtc());
}
