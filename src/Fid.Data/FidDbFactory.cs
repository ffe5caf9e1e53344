using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace Fid.Data;

/// <summary>Lets `dotnet ef migrations add` build the model without a running database.</summary>
internal sealed class FidDbFactory : IDesignTimeDbContextFactory<FidDb>
{
    public FidDb CreateDbContext(string[] args)
    {
        var options = new DbContextOptionsBuilder<FidDb>();
        options.UseFid(FidDatabase.Source("Host=127.0.0.1;Database=none"));
        return new FidDb(options.Options);
    }
}
