namespace Fid.Core.Rights;

/// <summary>What may be done with the things of <see cref="Things"/>, besides <see cref="Right.See"/> and <see cref="Right.Edit"/>.</summary>
public static class Actions
{
    /// <summary>See.</summary>
    public const string See = Right.See;

    /// <summary>Change, add and take away; seeing it as well.</summary>
    public const string Edit = Right.Edit;

    /// <summary>Of a hire: open one.</summary>
    public const string Open = "open";

    /// <summary>Of a record: take changes back, explain them, and correct a start or an end.</summary>
    public const string Correct = "correct";

    /// <summary>Of a record: make two of one person one, or part them.</summary>
    public const string Merge = "merge";

    /// <summary>Of people and lists: take out as a sheet.</summary>
    public const string Export = "export";

    /// <summary>Of pay: change the rates of many by a rule.</summary>
    public const string Revise = "revise";

    /// <summary>Of a role: give it to somebody, or take it from them.</summary>
    public const string Grant = "grant";

    /// <summary>Of an account: see Fid as its user does.</summary>
    public const string StandFor = "view-as";
}
