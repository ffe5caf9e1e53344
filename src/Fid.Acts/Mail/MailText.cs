using System.Collections.Concurrent;
using System.Text.Encodings.Web;
using Fluid;

namespace Fid.Acts.Mail;

/// <summary>A message of the firm's in one language: Liquid for its subject, its plain text and its HTML.</summary>
/// <param name="Subject">One line.</param>
/// <param name="Text">The body as plain text.</param>
/// <param name="Html">The body as HTML; what is filled in is escaped.</param>
public sealed record MailText(string Subject, string Text, string Html)
{
    private static readonly FluidParser Parser = new();
    private static readonly TemplateOptions Options = new() { MemberAccessStrategy = new UnsafeMemberAccessStrategy() };
    private static readonly ConcurrentDictionary<string, IFluidTemplate> Parsed = new();
    private static readonly ConcurrentDictionary<(string, string), MailText> Known = new();

    /// <summary>The text that ships with Fid.</summary>
    /// <param name="kind">What the message is for, such as "reminders".</param>
    /// <param name="language">"en" or "de".</param>
    public static MailText Shipped(string kind, string language) =>
        Known.GetOrAdd((kind, language), static of => new MailText(
            Read(of.Item1, of.Item2, "subject").Trim(),
            Read(of.Item1, of.Item2, "txt"),
            Read(of.Item1, of.Item2, "html")
        ));

    /// <summary>The message with what is filled in.</summary>
    /// <param name="with">What the text names, as an object with properties.</param>
    public MailText Fill(object with)
    {
        var context = new TemplateContext(with, Options);
        // A line break in a subject would begin another header.
        var subject = string.Join(' ', Parse(Subject).Render(context, NullEncoder.Default).Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        return new MailText(subject, Parse(Text).Render(context, NullEncoder.Default), Parse(Html).Render(context, HtmlEncoder.Default));
    }

    private static IFluidTemplate Parse(string liquid) =>
        Parsed.GetOrAdd(liquid, static text => Parser.TryParse(text, out var template, out var error) ? template : throw new FormatException(error));

    private static string Read(string kind, string language, string part)
    {
        using var stream = typeof(MailText).Assembly.GetManifestResourceStream($"mail/{kind}.{language}.{part}")
            ?? throw new ArgumentException($"There is no text for {kind} in {language}.", nameof(kind));
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }
}
