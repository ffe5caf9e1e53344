using Fid.Data;
using Fid.Data.Mail;
using Fid.Data.Work;

namespace Fid.Acts.Mail;

/// <summary>Puts messages into the context, with the job that sends each: both are there when the act is committed, or neither.</summary>
public static class MailOut
{
    public static void Write(FidDb db, MailMessage message)
    {
        db.MailMessages.Add(message);
        db.Jobs.Add(
            new Job
            {
                Kind = SendMail.Kind,
                Argument = message.Id.ToString(),
                State = JobState.Waiting,
                Due = message.At,
                MadeAt = message.At,
            }
        );
    }
}
