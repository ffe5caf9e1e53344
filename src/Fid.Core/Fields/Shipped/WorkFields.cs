using static Fid.Core.Fields.FieldType;
using static Fid.Core.Fields.Shipped.ShippedField;

namespace Fid.Core.Fields.Shipped;

/// <summary>Job, place, people and dates.</summary>
internal static class WorkFields
{
    private const string Section = "work";

    public static IReadOnlyList<FieldDefinition> All { get; } =
    [
        Entry(Section, "job", "jobs", "Job", "Stelle", AskedFor).Needed("prepare"),
        Field(Section, "job_title", Text, "Own job title", "Eigene Stellenbezeichnung", ForTasks),
        Entry(Section, "department", "departments", "Department", "Abteilung", AskedFor).Needed("prepare"),
        Entry(Section, "site", "sites", "Site", "Standort", AskedFor).Needed("prepare"),
        Entry(Section, "legal_entity", "legalEntities", "Legal entity", "Gesellschaft", ForWork),
        Field(Section, "manager", FieldType.Person, "Manager", "Führungskraft", AskedFor).Needed("prepare"),
        Field(Section, "dotted_manager", FieldType.Person, "Second manager", "Zweite Führungskraft", ForWork),
        Field(Section, "buddy", FieldType.Person, "Buddy", "Patin oder Pate", ForTasks),
        Entry(Section, "kind", "employmentKinds", "Kind", "Art", ForTasks).Needed("prepare"),
        Field(Section, "start_date", Date, "Start", "Beginn", Follows),
        Field(Section, "end_date", Date, "End", "Ende", AskedForWork),
        Entry(Section, "end_reason", "reasons", "Reason for leaving", "Austrittsgrund", AskedForWork).When("end_date != null"),
        Field(Section, "probation_end", Date, "Probation ends", "Ende der Probezeit", ForWork),
        Field(Section, "notice_weeks", Number, "Notice, weeks", "Kündigungsfrist, Wochen", ForWork).Between(0, 104),
        Entry(Section, "cost_centre", "costCentres", "Cost centre", "Kostenstelle", ForWork).Needed("prepare"),
        Field(Section, "room", Text, "Room or desk", "Raum oder Platz", ForTasks),
        Field(Section, "remote_days", Number, "Days a week at home", "Tage pro Woche zu Hause", ForWork).Between(0, 7),
        Field(Section, "permit_needed", YesNo, "Needs a work permit", "Braucht eine Arbeitserlaubnis", ForWork).OfPerson(),
        Field(Section, "permit_until", Date, "Work permit until", "Arbeitserlaubnis bis", ForWork).OfPerson().When("permit_needed") with
        {
            RequiredWhen = "permit_needed",
        },
        Field(Section, "recruited_by", Text, "Came to us through", "Kam zu uns durch", ForWork),
    ];
}
