namespace Fid.Data.Firms;

/// <summary>The roles a person who signs in can have.</summary>
public static class Roles
{
    public const string Coordinator = "coordinator";
    public const string Administrator = "administrator";
    public const string Payroll = "payroll";
    public const string Manager = "manager";
    public const string Owner = "owner";
    public const string Newcomer = "newcomer";

    public static IReadOnlyList<string> All { get; } = [Coordinator, Administrator, Payroll, Manager, Owner, Newcomer];
}
