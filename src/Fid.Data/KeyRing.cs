using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.Extensions.DependencyInjection;

namespace Fid.Data;

/// <summary>The keys that sign sessions and seal sensitive values: in the database, encrypted with a certificate that is not.</summary>
public static class KeyRing
{
    private const int KeyBits = 3072;
    private static readonly TimeSpan Validity = TimeSpan.FromDays(365 * 100);

    /// <summary>Adds the key ring. Its keys last 90 days; older ones go on opening what they closed.</summary>
    /// <param name="services">The services, with FidDb among them.</param>
    /// <param name="certificate">The file with the certificate, PKCS #12, which is made where there is none. Whoever loses it
    /// loses every sensitive value. Null leaves the keys in the database unencrypted.</param>
    public static void AddKeyRing(this IServiceCollection services, string? certificate)
    {
        var keys = services.AddDataProtection().SetApplicationName("fid").PersistKeysToDbContext<FidDb>();
        if (!string.IsNullOrEmpty(certificate))
            keys.ProtectKeysWithCertificate(Certificate(certificate));
    }

    private static X509Certificate2 Certificate(string path)
    {
        if (!File.Exists(path))
            Make(path);
        return X509CertificateLoader.LoadPkcs12FromFile(path, null);
    }

    // Two instances that start at once: the file of the first one stays.
    private static void Make(string path)
    {
        if (!OperatingSystem.IsLinux())
            throw new PlatformNotSupportedException("Fid runs on Linux.");
        using var key = RSA.Create(KeyBits);
        var request = new CertificateRequest("CN=Fid key ring", key, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1);
        using var certificate = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow + Validity);
        var making = $"{path}.{Guid.NewGuid():N}";
        using (
            var file = new FileStream(
                making,
                new FileStreamOptions
                {
                    Mode = FileMode.CreateNew,
                    Access = FileAccess.Write,
                    UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite,
                }
            )
        )
            file.Write(certificate.Export(X509ContentType.Pkcs12));
        try
        {
            File.Move(making, path);
        }
        catch (IOException) when (File.Exists(path))
        {
            File.Delete(making);
        }
    }
}
