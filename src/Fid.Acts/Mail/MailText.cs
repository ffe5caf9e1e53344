using System.Text.Encodings.Web;
using Fid.Core;
using Fid.Core.Texts;
using Fid.Data.Mail;
using Fluid;

namespace Fid.Acts.Mail;

/// <summary>A message of the firm's in one language: Liquid for its subject, its plain text and its HTML.</summary>
/// <param name="Subject">One line.</param>
/// <param name="Text">The body as plain text.</param>
/// <param name="Html">The body as HTML; what is filled in is escaped.</param>
public sealed record MailText(string Subject, string Text, string Html)
{
    // A loop in a loop in a text is cut off, and so is what would become of it.
    private const int MostSteps = 20_000,
        LongestMade = 400_000;

    private static readonly FluidParser Parser = new();

    private static readonly TemplateOptions Plain = new() { MemberAccessStrategy = new UnsafeMemberAccessStrategy(), MaxSteps = MostSteps };

    private readonly Lazy<(IFluidTemplate Subject, IFluidTemplate Text, IFluidTemplate Html)> _parsed = new(() => (Parse(Subject), Parse(Text), Parse(Html)));

    /// <summary>A text of the firm's own.</summary>
    public static MailText Of(OwnMailText own) => new(own.Subject, own.Text, own.Html);

    /// <summary>What is wrong with a text as somebody wrote it; nothing where it can be kept.</summary>
    public IEnumerable<Problem> Problems()
    {
        foreach (
            var (pointer, liquid, longest) in new[]
            {
                ("/subject", Subject, OwnMailText.LongestSubject),
                ("/text", Text, OwnMailText.LongestText),
                ("/html", Html, OwnMailText.LongestHtml),
            }
        )
        {
            if (string.IsNullOrWhiteSpace(liquid))
                yield return new Problem(pointer, "missing", "Write something, or go back to the text that ships.");
            else if (liquid.Length > longest)
                yield return new Problem(pointer, "too-long", $"Enter at most {longest} characters.");
            else if (!TextRules.TryCleanLines(liquid, out _))
                yield return new Problem(pointer, "bad-characters", TextRules.BadCharacters);
            else if (!Parser.TryParse(liquid, out _, out var error))
                yield return new Problem(pointer, "unreadable", $"This cannot be read: {error}");
        }
    }

    /// <summary>The message with what is filled in.</summary>
    /// <param name="with">What the text names, as an object with properties.</param>
    /// <exception cref="MailTextException">The text cannot be filled with this.</exception>
    public MailText Fill(object with) => Fill(with, Plain);

    /// <summary>The message with what is filled in, and with a mark wherever it names something that there is not: for whoever writes it.</summary>
    /// <exception cref="MailTextException">The text cannot be filled with this.</exception>
    public MarkedMail FillMarking(object with)
    {
        var marks = new MissingMarks(MostSteps);
        return new MarkedMail(Fill(with, marks.Options), marks.Missing);
    }

    private MailText Fill(object with, TemplateOptions options)
    {
        try
        {
            var (subject, text, html) = _parsed.Value;
            var filled = new MailText(
                // A line break in a subject would begin another header.
                string.Join(' ', Render(subject, with, NullEncoder.Default, options).Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)),
                Render(text, with, NullEncoder.Default, options),
                Render(html, with, HtmlEncoder.Default, options)
            );
            return filled.Text.Length + filled.Html.Length <= LongestMade ? filled : throw new MailTextException("It comes to more than a message may be.");
        }
        // Whatever a text does that its author did not mean, it is the text's fault.
        catch (Exception e) when (e is not MailTextException)
        {
            throw new MailTextException(e.Message, e);
        }
    }

    private static string Render(IFluidTemplate template, object with, TextEncoder encoder, TemplateOptions options) =>
        template.Render(new TemplateContext(with, options), encoder);

    private static IFluidTemplate Parse(string liquid) =>
        Parser.TryParse(liquid, out var template, out var error) ? template : throw new MailTextException(error);
}

/// <summary>A message as its author sees it.</summary>
/// <param name="Missing">What it names that there is not, each once.</param>
public sealed record MarkedMail(MailText Mail, IReadOnlyList<string> Missing);

/// <summary>A text that cannot be filled.</summary>
public sealed class MailTextException(string message, Exception? inner = null) : Exception(message, inner);
