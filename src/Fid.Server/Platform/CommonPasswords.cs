using Fid.Data.Firms;
using Microsoft.AspNetCore.Identity;

namespace Fid.Server.Platform;

/// <summary>Refuses passwords that anybody would try first: those on the list that ships with the library, with a year or a sign
/// behind them, rows of keys, and the account's own name. It asks for no capitals, digits or signs (NIST SP 800-63B, 5.1.1.2).</summary>
internal sealed class CommonPasswords : IPasswordValidator<FidUser>
{
    // Of five grades the library gives, the two that fall within minutes.
    private const int Guessable = 1;

    public Task<IdentityResult> ValidateAsync(UserManager<FidUser> manager, FidUser user, string? password)
    {
        var own = new[] { user.Email, user.Email?.Split('@')[0], user.DisplayName }.OfType<string>().Where(o => o.Length > 0).ToArray();
        return Task.FromResult(
            password is null || Is(password, own)
                ? IdentityResult.Failed(
                    new IdentityError
                    {
                        Code = "PasswordCommon",
                        Description = "This password is among the first that are tried. Choose several words that do not belong together.",
                    }
                )
                : IdentityResult.Success
        );
    }

    /// <summary>Whether a password is one of those tried first.</summary>
    /// <param name="own">What belongs to the account and so is no secret.</param>
    public static bool Is(string password, IReadOnlyCollection<string> own) =>
        own.Any(o => string.Equals(o, password, StringComparison.OrdinalIgnoreCase)) || new Zxcvbn.Zxcvbn().EvaluatePassword(password, own).Score <= Guessable;
}
