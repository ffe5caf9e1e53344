using Fid.Acts;
using Fid.Core.Rights;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.People;

/// <summary>Colleagues by name, for those who name one in a record without being shown the list of people: whoever can sign in and works here.
/// Of the others no name is told.</summary>
internal static class Colleagues
{
    private const int Most = 20;

    public static void MapColleagues(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/people/colleagues", Find).WhoMay(Actions.See, Things.Record).ProducesProblem(400);

    private static async Task<Results<Ok<Colleague[]>, ProblemHttpResult>> Find(string? q, Actor actor, FidDb db, CancellationToken cancellation)
    {
        if (!TextRules.TryClean(q ?? "", out var text))
            return Problems.Invalid(new Core.Problem("/q", "bad-characters", TextRules.BadCharacters));
        var today = actor.Today;
        var all = await (
            from user in db.Users
            join employment in db.Employments on user.PersonId equals employment.PersonId
            where user.DisabledAt == null && user.PasswordHash != null && employment.Start <= today && (employment.End == null || employment.End >= today)
            orderby user.DisplayName, employment.Id
            select new Colleague(employment.Id, user.DisplayName)
        ).ToListAsync(cancellation);
        string[] words = TextRules.Fold(text).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        return TypedResults.Ok(
            all.Where(c => $" {TextRules.Fold(c.Name)}" is var name && words.All(w => name.Contains($" {w}", StringComparison.Ordinal))).Take(Most).ToArray()
        );
    }
}

/// <summary>Somebody who can be named.</summary>
public sealed record Colleague(Guid EmploymentId, string Name);
