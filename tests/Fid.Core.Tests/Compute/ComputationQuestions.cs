namespace Fid.Core.Tests.Compute;

/// <summary>For each computation a question that has all there can be in one.</summary>
internal static class ComputationQuestions
{
    private const string Office = """{"rest":"0000011","holidays":["2027-03-17"]}""";

    private static readonly Dictionary<string, string> Questions = new()
    {
        ["calendar"] = $$"""
            {"calendar":{{Office}},"ask":[{"do":"add","date":"2027-05-14","days":3},{"do":"count","from":"2027-05-10","to":"2027-05-21"},
             {"do":"roll","date":"2027-05-17","rule":"following"}]}
            """,
        ["plan"] = $$"""
            {"today":"2027-03-01","anchors":{"start":"2027-03-22","acceptance":"2027-03-01"},"calendars":{"office":{{Office}} },
             "stages":[{"id":"prepare"},{"id":"settle","opens":{"anchor":"start","offset":-2,"unit":"weeks"},"waitsFor":["prepare"]}],
             "tasks":[{"id":"a","stage":"prepare","calendar":"office","work":2,"opens":{"anchor":"acceptance","offset":1,"unit":"days"},
               "due":{"anchor":"start","offset":-1,"unit":"weeks"},"after":[],"required":true,"dayOne":true},
              {"id":"b","stage":"prepare","calendar":"office","after":["a",{"id":"a","lag":1}],"done":"2027-03-01"},
              {"id":"c","stage":"settle","calendar":"office","skipped":true}]}
            """,
        ["pay.rate"] = """{"amount":17.40,"per":"hour","weeklyHours":30,"fullTimeHours":37.5,"daysPerWeek":5,"payEvery":"fortnight"}""",
        ["pay.band"] = """{"pay":33930,"min":30000,"mid":36000,"max":42000}""",
        ["pay.periods"] = $$"""
            {"payGroup":{"every":"fortnight","firstPeriodStart":"2027-01-04","payDaysAfterEnd":5,"cutOffWorkingDays":4,"calendar":{{Office}} },
             "from":"2027-03-29","to":"2027-04-29"}
            """,
        ["pay.first"] = $$"""
            {"payGroup":{"every":"fortnight","firstPeriodStart":"2027-01-04","payDaysAfterEnd":5,"cutOffWorkingDays":4,"calendar":{{Office}} },
             "start":"2027-03-22","approvedOn":"2027-04-06","workCalendar":{{Office}},"amountPerPeriod":1250.00,"method":"annual260",
             "roster":{"timeZone":"Europe/Dublin","pattern":{"cycleStart":"2027-03-26","days":["N","-"],
              "shifts":{"N":{"start":"22:00","end":"06:00","unpaidBreak":30} } },"holidays":["2027-03-17"],"onHoliday":"off"} }
            """,
        ["pay.loaded"] = """
            {"annualCosts":[33800,2028,640],"weeklyHours":37.5,"hoursPerDay":7.5,"leaveDays":25,"holidays":9,"trainingHours":30}
            """,
        ["pay.preview"] = """
            {"every":"fortnight","components":[{"code":"BASE","kind":"earning","amount":1250},{"code":"ISLE","kind":"earning","percent":4,"of":["BASE"],
              "floor":10,"cap":2000},{"code":"TAX","kind":"deduction","brackets":[{"upTo":12000,"percent":0},{"percent":20}],"of":["BASE"],"basis":"annual"},
             {"code":"HALF","kind":"employerCost","formula":"BASE / 2"}]}
            """,
        ["clock.roster"] = """
            {"timeZone":"Europe/Dublin","pattern":{"cycleStart":"2027-03-26","days":["N","-"],
             "shifts":{"N":{"start":"22:00","end":"06:00","unpaidBreak":30} } },
             "holidays":["2027-03-17"],"onHoliday":"off","from":"2027-03-27","to":"2027-03-28"}
            """,
        ["clock.badges"] = """
            {"assignments":[{"id":"x","badge":"0012","group":"g","person":"p","from":"2027-01-01","to":"2027-02-01"},
             {"id":"y","badge":"0012","group":"g","person":"q","from":"2027-02-03","to":null}],"restDays":30}
            """,
        ["fields.check"] = """
            {"fields":[{"key":"pay","label":{"en":"Pay"},"section":"pay","type":"money","required":"always","access":{"c":"edit"},"min":1,"max":9},
              {"key":"deck","type":"choice","options":[{"value":"fore","label":{"en":"Fore"},"retired":false}],"required":{"from":"prepare"},
               "access":{"c":"edit"},"requiredWhen":"pay > 3","showWhen":"pay > 2","default":{"value":"fore"},"onChange":[{"set":"note","formula":"'x'"}],
               "unique":false,"sensitive":false},
              {"key":"note","type":"text","pattern":"[a-z]+","access":{"c":"edit"} }],
             "stages":["prepare"],"lists":{"sites":["skerry"]},"roles":["c"],"live":[{"key":"pay","type":"money"}],"stored":{"pay":{"3":1} } }
            """,
        ["fields.evaluate"] = """
            {"fields":[{"key":"pay","type":"money","access":{"c":"edit"} },{"key":"site","type":"listEntry","list":"sites","access":{"c":"edit"} }],
             "stages":["prepare"],"lists":{"sites":["skerry"]},"values":{"pay":3},"typed":["pay"],"changed":["pay"],"role":"c","stage":"prepare",
             "today":"2027-03-01"}
            """,
        ["people.match"] = """
            {"person":{"given":"Ines","family":"Okafor","born":"1998-04-12","email":"a@example.org","phone":"0123456789","identifier":"X1"},
             "known":[{"id":"k","given":"Ines","family":"Okafor","born":"1998-04-12","email":"a@example.org","phone":"0123456789","identifier":"X1",
              "otherNames":["Lind"]}]}
            """,
        ["people.org"] = """{"people":[{"id":"a","manager":"b","dotted":["b"]},{"id":"b"}]}""",
        ["certificates.state"] = """
            {"today":"2027-03-01","warn":[90,30],"needed":[{"kind":"SEA","essential":true}],"held":[{"kind":"SEA","from":"2027-01-01","to":"2027-03-20"}]}
            """,
        ["chase"] = """
            {"today":"2027-03-10","calendars":{"office":{"rest":"0000011","holidays":["2027-03-17"]} },
             "policy":{"before":[5,1],"onDue":true,"overdueEvery":2,"overdueMost":3,"escalateAfter":3},
             "people":[{"id":"nils","calendar":"office","manager":"ruth","away":[{"from":"2027-03-08","to":"2027-03-12","standIn":"ruth"}]},
              {"id":"ruth","calendar":"office"}],"tasks":[{"id":"radio","owner":"nils","due":"2027-03-06","possible":true,"paused":false}],
             "sent":[{"task":"radio","kind":"due","day":"2027-03-05"}]}
            """,
        ["stalls"] = """
            {"calendars":{"office":{"rest":"0000011","holidays":["2027-03-17"]} },"from":"2027-03-01","to":"2027-03-31","least":4,
             "tasks":[{"key":"radio","owner":"stores","calendar":"office","work":2,"possible":"2027-03-05","due":"2027-03-10","done":"2027-03-09",
              "heldUp":true}]}
            """,
        ["service"] = """{"employments":[{"start":"2024-01-01","end":"2025-12-31"},{"start":"2026-01-10"}],"bridgeDays":30}""",
        ["leave"] = """{"days":25,"fte":0.8,"start":"2027-03-22","yearStart":"2027-01-01","yearEnd":"2027-12-31","rounding":"upHalf"}""",
        ["templates.resolve"] = """
            {"facts":{"site":"skerry"},"templates":[{"id":"deck","version":1,"values":{"pay_rate":{"value":17.4},"end":{"formula":"addMonths(start_date, 7)"} },
              "tasks":[{"key":"radio","work":2}]},{"id":"top","version":2,"buildsOn":"deck","values":{} }],"use":"top",
             "addOns":[{"id":"isle","version":1,"when":"site == 'skerry'","order":10,"values":{"shift":{"value":"early"} } }],
             "typed":{"first":"Ines"},"today":"2027-03-01"}
            """,
        ["rights.explain"] = """
            {"today":"2027-03-22","departments":[{"code":"fleet"},{"code":"deck","parent":"fleet"}],
             "people":[{"id":"orla","values":{"site":"skerry"} },{"id":"nils","manager":"orla","values":{"site":"skerry","department":"deck"} }],
             "roles":[{"id":"lead","rights":[{"do":"see","on":"section:pay","reach":"reports"},{"do":"edit","on":"pay_rate","reach":{"site":"skerry"} },
               {"do":"see","on":"*","reach":{"department":"fleet"} },{"do":"see","on":"*","reach":{"when":"site == 'skerry'"} }]}],
             "grants":[{"person":"orla","role":"lead","from":"2027-03-22","to":"2027-03-31"}],
             "ask":[{"who":"orla","do":"see","on":"pay_rate@pay","target":"nils"}]}
            """,
        ["approvals.needed"] = """
            {"today":"2027-03-22","people":[{"id":"nils","manager":"orla","roles":[]},
              {"id":"orla","roles":["payroll"],"away":[{"from":"2027-03-20","to":"2027-03-22","standIn":"ruth"}]},{"id":"ruth","roles":["administrator"]}],
             "rules":[{"id":"rise","fields":["pay_rate"],"when":"new > old","by":["manager","manager2","role:payroll","person:ruth"]}],
             "request":{"by":"nils","person":"nils","changes":[{"field":"pay_rate","old":17.4,"new":18.5}],"values":{"site":"skerry"} } }
            """,
        ["templates.merge"] = """{"base":{"a":1},"mine":{"a":2},"theirs":{"a":1}}""",
    };

    /// <summary>The question of a computation.</summary>
    public static string Of(string name) => Questions[name];
}
