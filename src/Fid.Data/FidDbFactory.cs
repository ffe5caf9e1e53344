using Microsoft.EntityFrameworkCore.Design;

namespace Fid.Data;

/// <summary>Lets `dotnet ef migrations add` build the model without a running database.</summary>
internal sealed class FidDbFactory : IDesignTimeDbContextFactory<FidDb>
{
    public FidDb CreateDbContext(string[] args) => FidDatabase.Open(FidDatabase.Source("Host=127.0.0.1;Database=none"));
}
