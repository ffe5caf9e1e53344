using System.Text.Json;

namespace Fid.Core.Json;

/// <summary>The words by which questions and answers call the values of an enumeration, in the order of its values from 0.</summary>
internal sealed class Choices
{
    private readonly JsonEncodedText[] _words;

    public Choices(params string[] words)
    {
        _words = new JsonEncodedText[words.Length];
        for (var i = 0; i < words.Length; i++)
            _words[i] = JsonEncodedText.Encode(words[i]);
        Known = string.Join(", ", words);
    }

    public string Known { get; }

    /// <summary>The value whose word the reader stands on, or −1.</summary>
    public int Find(ref Utf8JsonReader json)
    {
        for (var i = 0; i < _words.Length; i++)
            if (json.ValueTextEquals(_words[i].EncodedUtf8Bytes))
                return i;
        return -1;
    }

    public JsonEncodedText Word(int value) => _words[value];
}
