namespace Fid.Core.Checklists;

/// <summary>What kind of thing a task asks for.</summary>
public enum TaskKind
{
    /// <summary>Something to be done, in its own words.</summary>
    ToDo,

    /// <summary>Fields of the record to be filled.</summary>
    Fill,

    /// <summary>Fields of the record to be looked over.</summary>
    Check,

    /// <summary>Something to be read.</summary>
    Read,

    /// <summary>Something to be acknowledged.</summary>
    Acknowledge,

    /// <summary>Something to be signed.</summary>
    Sign,

    /// <summary>A file to be given.</summary>
    Upload,

    /// <summary>A film to be watched.</summary>
    Watch,

    /// <summary>A date to be kept, at a place and time.</summary>
    Attend,

    /// <summary>Items to be issued.</summary>
    Issue,

    /// <summary>Items to be given back: those it names, or all that are out.</summary>
    Return,

    /// <summary>Certificates to be obtained.</summary>
    Certify,

    /// <summary>A time clock to know the newcomer.</summary>
    Enrol,

    /// <summary>The first punch to be seen.</summary>
    FirstPunch,

    /// <summary>Something to be asked for and agreed to.</summary>
    Ask,

    /// <summary>Fields of the record to be set by Fid itself, as soon as the task can be begun.</summary>
    Run,

    /// <summary>Several small steps, each ticked by itself: done when all of them are.</summary>
    Steps,
}
