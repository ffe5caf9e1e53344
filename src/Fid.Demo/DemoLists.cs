using Fid.Acts.Lists;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Changes;

namespace Fid.Demo;

/// <summary>The lists of Halyard Sound Ferries, loaded by the same rules as anybody's.</summary>
internal static class DemoLists
{
    public static async Task AddAsync(FidDb db, Author author)
    {
        var loader = new ListLoader(db);
        foreach (var list in ShippedLists.All)
        {
            var problems = await loader.AddAsync(list, list.Key == "jobs" ? Jobs() : Read(list.Key), author, default);
            if (problems.Count > 0)
                throw new InvalidOperationException($"{list.Key}, row {problems[0].Row + 1}, {problems[0].Problem.Column}: {problems[0].Problem.Message}");
            db.ChangeTracker.Clear();
        }
    }

    private static IReadOnlyList<IReadOnlyDictionary<string, string>> Read(string list)
    {
        using var stream = typeof(DemoLists).Assembly.GetManifestResourceStream($"lists/{list}.csv")!;
        using var reader = new StreamReader(stream);
        return ListLoader.Rows(reader);
    }

    private static IReadOnlyDictionary<string, string>[] Jobs() =>
        [
            .. DemoJobs.All.Select(j => new Dictionary<string, string>
            {
                ["code"] = j.Code,
                ["name"] = j.Title,
                ["grade"] = j.Grade,
                ["family"] = j.PayGroup switch
                {
                    "yard" => "YARD",
                    "office" => "OFFICE",
                    _ => j.Department is "tickets" or "shore" ? "GUEST" : "CREW",
                },
                ["safety_critical"] = j.Department is "deck" or "engine" or "safety" ? "yes" : "no",
                ["overtime"] = j.PaidBy == "hour" ? "paid" : "timeOff",
                ["items"] = j.Department switch
                {
                    "deck" or "engine" => "LIFEJACKET; RADIO; UNIFORM; LOCKER",
                    "galley" => "LIFEJACKET; UNIFORM",
                    "shipwrights" or "rigging" => "TOOLROLL",
                    "it" or "payroll" => "LAPTOP",
                    _ => "",
                },
                ["certificates"] = j.Department switch
                {
                    "deck" => "SEA essential; RADIO desirable; MED essential",
                    "engine" => "SEA essential; MED essential",
                    "galley" => "SEA essential; FOOD essential",
                    _ => "",
                },
                ["rates"] = j.Code == "TC-1" ? "2024-01-01 percent 8" : "",
            }),
        ];
}
