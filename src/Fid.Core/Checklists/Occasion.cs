namespace Fid.Core.Checklists;

/// <summary>What a checklist is run for. The day it is planned around, the plan's anchor "start", is another for each.</summary>
public enum Occasion
{
    /// <summary>Somebody comes: planned around their first day.</summary>
    Arrival,

    /// <summary>Somebody who works here gets another job: planned around the first day in it.</summary>
    JobChange,

    /// <summary>Somebody goes: planned around their last day, on which they still work.</summary>
    Leaving,

    /// <summary>A pay group is paid: planned around the cut-off of the run. It is nobody's, and no hire is for it.</summary>
    PayRun,
}
