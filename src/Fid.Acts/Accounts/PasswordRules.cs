using Fid.Core;

namespace Fid.Acts.Accounts;

/// <summary>How long a password is. What is too common is told by the password validators.</summary>
public static class PasswordRules
{
    public const int Fewest = 12,
        Most = 200;

    /// <summary>What is wrong with a password that is to prove who somebody is; null for nothing.</summary>
    public static Problem? CheckEntered(string pointer, string password) =>
        password.Length == 0 ? new Problem(pointer, "missing", "Enter your password.")
        : password.Length > Most ? new Problem(pointer, "too-long", $"Enter at most {Most} characters.")
        : null;

    /// <summary>What is wrong with a new one; null for nothing.</summary>
    public static Problem? Check(string pointer, string password) =>
        password.Length < Fewest ? new Problem(pointer, "too-short", $"Enter at least {Fewest} characters.")
        : password.Length > Most ? new Problem(pointer, "too-long", $"Enter at most {Most} characters.")
        : null;
}
