using System.Text;
using System.Text.Json;

namespace Fid.Core.Json;

/// <summary>The properties an object of a question may have, at most 32. A name with a question mark may be left out.</summary>
internal sealed class Shape
{
    private readonly byte[][] _utf8;

    public Shape(params string[] names)
    {
        (Names, Optional, _utf8) = (new string[names.Length], new bool[names.Length], new byte[names.Length][]);
        for (var i = 0; i < names.Length; i++)
        {
            Names[i] = names[i].TrimEnd('?');
            Optional[i] = names[i].EndsWith('?');
            _utf8[i] = Encoding.UTF8.GetBytes(Names[i]);
        }
    }

    public string[] Names { get; }

    public bool[] Optional { get; }

    /// <summary>The place of the property whose name the reader stands on, or −1. Looked for behind those seen already first,
    /// since properties mostly come in order.</summary>
    public int Find(ref Utf8JsonReader json, uint seen)
    {
        var expected = 32 - System.Numerics.BitOperations.LeadingZeroCount(seen);
        for (var k = 0; k < _utf8.Length; k++)
        {
            var i = expected + k;
            if (i >= _utf8.Length)
                i -= _utf8.Length;
            if (json.ValueTextEquals(_utf8[i]))
                return i;
        }
        return -1;
    }
}
